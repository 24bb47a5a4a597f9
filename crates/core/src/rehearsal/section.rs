//! A still as a section from the side, not to scale: the piece, what lies over and under it, and the boxes around it.

use crate::act::{FaceOf, MovePicture, PictureFace, Pose, Spot, Stands, StillBox, StillThing};

/// How wide the piece is drawn.
const PIECE: f64 = 360.0;
const PIECE_HIGH: f64 = 24.0;
/// How thick a layer is drawn, and the air between two.
const LAYER: f64 = 10.0;
const AIR: f64 = 4.0;
/// What lies at the edges, and how far what goes around stands off.
const EDGE: f64 = 22.0;
const MARGIN: f64 = 12.0;

/// A rectangle, from its left upper corner to its right lower one.
#[derive(Debug, Clone, Copy)]
struct Block {
    left: f64,
    top: f64,
    right: f64,
    bottom: f64,
}

impl Block {
    fn points(self) -> Vec<[f64; 2]> {
        let Self {
            left,
            top,
            right,
            bottom,
        } = self;
        vec![[left, top], [right, top], [right, bottom], [left, bottom]]
    }

    const fn grown(self, by: f64) -> Self {
        Self {
            left: self.left - by,
            top: self.top - by,
            right: self.right + by,
            bottom: self.bottom + by,
        }
    }
}

/// What is drawn so far: its faces, and what they fill.
struct Section {
    faces: Vec<(FaceOf, Block)>,
    fills: Block,
}

impl Section {
    fn lay(&mut self, at: Spot) {
        let fills = self.fills;
        let over = Block {
            top: fills.top - AIR - LAYER,
            bottom: fills.top - AIR,
            ..fills
        };
        let under = Block {
            top: fills.bottom + AIR,
            bottom: fills.bottom + AIR + LAYER,
            ..fills
        };
        let beside = |left: f64, right: f64| Block {
            left,
            right,
            ..fills
        };
        let sides = [
            beside(fills.left - AIR - EDGE, fills.left - AIR),
            beside(fills.right + AIR, fills.right + AIR + EDGE),
        ];
        let corner = |left: f64| Block {
            left,
            right: left + EDGE,
            ..fills.grown(AIR)
        };
        let blocks: Vec<(FaceOf, Block)> = match at {
            Spot::Face | Spot::FaceFolded => vec![(FaceOf::Card, over)],
            Spot::Back => vec![(FaceOf::Card, under)],
            Spot::Both => [over, under].map(|block| (FaceOf::Card, block)).to_vec(),
            Spot::Beside | Spot::Edges => sides.map(|block| (FaceOf::Inside, block)).to_vec(),
            Spot::Border | Spot::Corners => [fills.left - AIR, fills.right + AIR - EDGE]
                .map(|left| (FaceOf::Inside, corner(left)))
                .to_vec(),
            Spot::Around => {
                let around = fills.grown(AIR + LAYER / 2.0);
                self.faces.insert(0, (FaceOf::Inside, around));
                self.fills = around;
                return;
            }
        };
        for (_, block) in &blocks {
            self.fills = Block {
                left: self.fills.left.min(block.left),
                top: self.fills.top.min(block.top),
                right: self.fills.right.max(block.right),
                bottom: self.fills.bottom.max(block.bottom),
            };
        }
        self.faces.extend(blocks);
    }
}

/// Draws it: lying with the side down that is down, or standing on its edge.
pub(super) fn drawn(lies: Pose, things: &[StillThing], boxes: &[StillBox]) -> MovePicture {
    let piece = Block {
        left: 0.0,
        top: 0.0,
        right: PIECE,
        bottom: PIECE_HIGH,
    };
    let mut section = Section {
        faces: vec![(FaceOf::Goods, piece)],
        fills: piece,
    };
    for thing in things {
        section.lay(thing.at);
    }
    let loaded = boxes.iter().filter(|one| one.stands >= Stands::Loaded);
    for _ in loaded {
        let around = section.fills.grown(MARGIN);
        section.faces.insert(0, (FaceOf::Card, around));
        section.fills = around;
    }
    let whole = section.fills.grown(MARGIN);
    let put = |[x, y]: [f64; 2]| {
        let [x, y] = [x - whole.left, y - whole.top];
        let [wide, high] = [whole.right - whole.left, whole.bottom - whole.top];
        match lies {
            Pose::FaceUp => [x, y],
            Pose::FaceDown => [wide - x, high - y],
            Pose::Standing => [y, wide - x],
        }
    };
    let faces = section.faces.into_iter().map(|(of, block)| PictureFace {
        of,
        points: block.points().into_iter().map(put).collect(),
    });
    let [wide, high] = [whole.right - whole.left, whole.bottom - whole.top];
    let [width, height] = match lies {
        Pose::FaceUp | Pose::FaceDown => [wide, high],
        Pose::Standing => [high, wide],
    };
    MovePicture {
        width,
        height,
        faces: faces.collect(),
        arrow: None,
    }
}
