//! From a tree of strips to knife lines: each from edge to edge of one piece, in an order in which there always is one.

use super::tree::{Axis, Lying, Pm, Side, Tree};

/// A piece of a sheet, from its lower left corner.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct Rect {
    pub x: Pm,
    pub y: Pm,
    pub w: Pm,
    pub h: Pm,
}

/// A knife line across a piece; the blade's width lies beyond it.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct Line {
    pub axis: Axis,
    pub at: Pm,
    pub from: Pm,
    pub to: Pm,
}

/// A sheet, cut.
#[derive(Debug, Clone, Default)]
pub(super) struct CutUp {
    pub placed: Vec<(Lying, Pm, Pm)>,
    pub lines: Vec<Line>,
    pub rest: Vec<Rect>,
}

impl CutUp {
    /// The largest piece that is left over, by its area.
    fn largest(&self) -> i128 {
        let area = |rect: &Rect| i128::from(rect.w) * i128::from(rect.h);
        self.rest.iter().map(area).max().unwrap_or(0)
    }

    fn then(mut self, other: Self) -> Self {
        self.placed.extend(other.placed);
        self.lines.extend(other.lines);
        self.rest.extend(other.rest);
        self
    }
}

/// Cuts up a sheet, so that the largest piece that is left over is as large as this layout allows.
///
/// All sizes in the tree have the blade's width beyond them.
pub(super) fn cut_up(tree: &Tree, kerf: Pm) -> CutUp {
    let (w, h) = tree.sheet();
    let sheet = Rect { x: 0, y: 0, w, h };
    match tree.root() {
        Some(root) => cut(tree, root, sheet, kerf),
        None => CutUp::default(),
    }
}

fn cut(tree: &Tree, node: Side, piece: Rect, kerf: Pm) -> CutUp {
    let (w, h) = tree.needs(node);
    let across_first = || {
        trimmed(Axis::X, w, piece, kerf, |left| {
            trimmed(Axis::Y, h, left, kerf, |left| {
                within(tree, node, left, kerf)
            })
        })
    };
    let up_first = || {
        trimmed(Axis::Y, h, piece, kerf, |left| {
            trimmed(Axis::X, w, left, kerf, |left| {
                within(tree, node, left, kerf)
            })
        })
    };
    let both = piece.w > w && piece.h > h;
    let mut ways = vec![across_first()];
    if both {
        ways.push(up_first());
    }
    // What is over across a strip may go to its parts instead.
    match tree.strip(node) {
        Some(Axis::X) if piece.h > h => ways.push(trimmed(Axis::X, w, piece, kerf, |left| {
            within(tree, node, left, kerf)
        })),
        Some(Axis::Y) if piece.w > w => ways.push(trimmed(Axis::Y, h, piece, kerf, |left| {
            within(tree, node, left, kerf)
        })),
        _ => {}
    }
    ways.into_iter()
        .reduce(|best, way| {
            if way.largest() > best.largest() {
                way
            } else {
                best
            }
        })
        .unwrap_or_default()
}

/// Cuts off what is over in one way, and goes on with what is left.
fn trimmed(
    axis: Axis,
    needs: Pm,
    piece: Rect,
    kerf: Pm,
    then: impl FnOnce(Rect) -> CutUp,
) -> CutUp {
    let Rect { x, y, w, h } = piece;
    let over = match axis {
        Axis::X => w - needs,
        Axis::Y => h - needs,
    };
    if over == 0 {
        return then(piece);
    }
    let (line, left, rest) = match axis {
        Axis::X => (
            Line {
                axis,
                at: x + needs - kerf,
                from: y,
                to: y + h - kerf,
            },
            Rect { w: needs, ..piece },
            Rect {
                x: x + needs,
                y,
                w: over - kerf,
                h: h - kerf,
            },
        ),
        Axis::Y => (
            Line {
                axis,
                at: y + needs - kerf,
                from: x,
                to: x + w - kerf,
            },
            Rect { h: needs, ..piece },
            Rect {
                x,
                y: y + needs,
                w: w - kerf,
                h: over - kerf,
            },
        ),
    };
    let done = CutUp {
        lines: vec![line],
        rest: if rest.w > 0 && rest.h > 0 {
            vec![rest]
        } else {
            Vec::new()
        },
        placed: Vec::new(),
    };
    done.then(then(left))
}

/// Parts a strip into what lies in it, or places a part.
fn within(tree: &Tree, node: Side, piece: Rect, kerf: Pm) -> CutUp {
    let Some(axis) = tree.strip(node) else {
        return CutUp {
            placed: tree
                .part(node)
                .map(|part| (part, piece.x, piece.y))
                .into_iter()
                .collect(),
            ..CutUp::default()
        };
    };
    let mut done = CutUp::default();
    let mut parts = Vec::new();
    let (mut x, mut y) = (piece.x, piece.y);
    let kids = tree.kids(node);
    for (place, kid) in kids.iter().enumerate() {
        let (w, h) = tree.needs(*kid);
        let last = place + 1 == kids.len();
        let own = match axis {
            Axis::X => Rect {
                x,
                y,
                w,
                h: piece.h,
            },
            Axis::Y => Rect {
                x,
                y,
                w: piece.w,
                h,
            },
        };
        match axis {
            Axis::X => x += w,
            Axis::Y => y += h,
        }
        if !last {
            done.lines.push(match axis {
                Axis::X => Line {
                    axis,
                    at: x - kerf,
                    from: piece.y,
                    to: piece.y + piece.h - kerf,
                },
                Axis::Y => Line {
                    axis,
                    at: y - kerf,
                    from: piece.x,
                    to: piece.x + piece.w - kerf,
                },
            });
        }
        parts.push(cut(tree, *kid, own, kerf));
    }
    parts.into_iter().fold(done, CutUp::then)
}
