//! The play: where each thing lies on a piece, which side is up and what holds it, act by act.

use std::collections::BTreeMap;

use super::{
    Broken, Rule, boxes,
    cast::{Bears, Player},
    section,
};
use crate::{
    act::{Act, Does, Held, Pose, Spot, Still, StillBox, StillThing, Thing},
    pack::{PackStep, Stage},
    part::{Part, PartId, Take},
    piece::Piece,
    quantity::Length,
};

/// What lies between two boards that are bound together can't fall out of place where it has no more room than this; before a face that
/// nothing may touch, less. Source: bench practice.
const ROOM: Length = Length::mm(12.0);
const ROOM_BEFORE_BARE: Length = Length::mm(1.0);
/// A paper corner reaches over a sheet to half its leg, and stays this far off the picture. Source: bench practice.
const OFF_THE_PICTURE: Length = Length::mm(3.0);

/// A piece with what was laid on it so far, or several that were bound together.
#[derive(Debug, Clone)]
struct Bundle {
    player: Player,
    lies: Pose,
    things: Vec<StillThing>,
    /// The board that it lies on, and what holds it there; `None` while it is on nothing of its own.
    base: Option<(PartId, Held)>,
    /// How far what lies over the face is kept off it.
    keeps_off: Option<Length>,
    /// Whether something lies over the face.
    covered: bool,
    /// Whether it is closed all round.
    closed: bool,
}

impl Bundle {
    const fn new(player: Player) -> Self {
        Self {
            player,
            lies: Pose::FaceUp,
            things: Vec::new(),
            base: None,
            keeps_off: None,
            covered: false,
            closed: false,
        }
    }

    /// What several are once they lie together: each is closed by then.
    const fn of_several() -> Self {
        Self::new(Player {
            bears: Bears::Fast,
            border: None,
        })
    }

    /// What isn't held, of what lies in some places, and the piece itself where it only lies on its board.
    fn loose(&self, at: impl Fn(Spot) -> bool, piece: bool) -> Option<&'static str> {
        let lying = |thing: &&StillThing| thing.held == Held::Lies && at(thing.at);
        let thing = self.things.iter().find(lying).map(|thing| thing.part.key());
        let alone = self.base.filter(|(_, held)| piece && *held == Held::Lies);
        thing.or_else(|| alone.map(|_| Thing::Piece.key()))
    }

    /// Everything is held: by what closes around it, or since it was told once that it isn't.
    fn hold_all(&mut self) {
        for thing in &mut self.things {
            if thing.held != Held::Fixed {
                thing.held = Held::Within;
            }
        }
        if let Some((_, held)) = &mut self.base
            && *held != Held::Fixed
        {
            *held = Held::Within;
        }
    }

    /// Two boards are bound together: what lies between them is held where it has no room to fall out of place.
    fn bound(&mut self) {
        let limit = match self.player.bears {
            Bears::Bare => ROOM_BEFORE_BARE,
            Bears::Soft | Bears::Fast => ROOM,
        };
        let base = self.base;
        self.hold_all();
        if self.keeps_off.is_some_and(|gap| gap > limit) {
            self.base = base;
        }
        self.closed = true;
    }

    /// Holds what an act names.
    fn fix(&mut self, act: &Act) {
        let on_piece = matches!(act.to, Some(Thing::Piece | Thing::Goods));
        let on_held = match act.to {
            Some(Thing::Part(part)) => {
                let mut there = self.things.iter().filter(|thing| thing.part == part);
                there.all(|thing| thing.held != Held::Lies)
            }
            _ => on_piece,
        };
        for thing in &mut self.things {
            if on_held && act.things().any(|named| named == Thing::Part(thing.part)) {
                thing.held = Held::Fixed;
            }
        }
        if act.thing == Thing::Piece
            && let Some(Thing::Part(board)) = act.to
        {
            self.base = Some((board, Held::Fixed));
        }
    }

    /// Whether an act binds a board before the face to one behind.
    fn is_bound_by(&self, act: &Act) -> bool {
        let named =
            |thing: &&StillThing| act.things().any(|named| named == Thing::Part(thing.part));
        let spots: Vec<Spot> = self
            .things
            .iter()
            .filter(named)
            .map(|thing| thing.at)
            .collect();
        let behind = self.base.is_some()
            || self
                .things
                .iter()
                .any(|thing| thing.at == Spot::Back && is_board(thing.part));
        spots.contains(&Spot::Both) || spots.contains(&Spot::Face) && behind
    }
}

const fn is_board(part: PartId) -> bool {
    matches!(
        part,
        PartId::Board
            | PartId::FrontBoard
            | PartId::BackBoard
            | PartId::BoardBehind
            | PartId::CradleBoard
    )
}

/// What may lie on a face that bears something, flat and evenly.
const fn is_flat(part: PartId) -> bool {
    is_board(part)
        || matches!(
            part,
            PartId::ContactSheet
                | PartId::SheetToBeSlitInTwo
                | PartId::Interleaf
                | PartId::SheetToRoll
                | PartId::SheetBetweenBacks
        )
}

/// A play as far as it is.
struct Play<'a> {
    players: Vec<Player>,
    /// Each piece by the beginning of the keys of its steps.
    bundles: BTreeMap<String, Bundle>,
    /// What they are once they lie together, or the only one.
    goods: Option<Bundle>,
    boxes: Vec<StillBox>,
    broken: Vec<Broken>,
    step: &'a PackStep,
}

/// What the keys of the steps of one piece of several begin with.
fn of_piece(step: &PackStep) -> Option<String> {
    step.piece.as_ref()?;
    let rest = step.key.strip_prefix("piece/").unwrap_or_default();
    Some(rest.split('/').next().unwrap_or_default().to_owned())
}

/// Plays a list: what hands could not do, and how everything lies after each step.
pub(super) fn play(steps: &[PackStep], pieces: &[&Piece]) -> (Vec<Broken>, Vec<Still>) {
    let Some(first) = steps.first() else {
        return (Vec::new(), Vec::new());
    };
    let mut play = Play {
        players: pieces.iter().map(|piece| Player::of(piece)).collect(),
        bundles: BTreeMap::new(),
        goods: None,
        boxes: Vec::new(),
        broken: Vec::new(),
        step: first,
    };
    let stills = steps.iter().map(|step| play.step(step)).collect();
    (play.broken, stills)
}

impl<'a> Play<'a> {
    fn step(&mut self, step: &'a PackStep) -> Still {
        self.step = step;
        if let Some((of, stands)) = boxes::stands(step) {
            match self.boxes.iter_mut().find(|one| one.slot == of) {
                Some(one) => one.stands = stands,
                None => self.boxes.push(StillBox {
                    slot: of.to_owned(),
                    stands,
                }),
            }
        }
        let own = of_piece(step);
        let mut bundle = self.taken(own.as_deref());
        let touches = step.stage.lays() && step.stage != Stage::Parcel;
        for act in step.acts.iter().filter(|_| touches) {
            self.act(act, &mut bundle);
        }
        let still = Still {
            lies: bundle.lies,
            things: bundle.things.clone(),
            boxes: self.boxes.clone(),
            picture: section::drawn(bundle.lies, &bundle.things, &self.boxes),
        };
        match own {
            Some(own) => {
                self.bundles.insert(own, bundle);
            }
            None if step.stage.lays() => self.lie_together(bundle),
            None => {}
        }
        still
    }

    /// What is laid together is closed by then, or covered.
    fn lie_together(&mut self, bundle: Bundle) {
        if self.goods.is_none() {
            let bare = |one: &&Bundle| one.player.bears != Bears::Fast && !one.covered;
            if self.bundles.values().any(|one| bare(&one)) {
                let says = "a bare face is laid together with others".to_owned();
                self.breaks(Rule::Faces, Thing::Piece.key(), says);
            }
        }
        self.goods = Some(bundle);
    }

    /// What a step is about, as it lies.
    fn taken(&self, own: Option<&str>) -> Bundle {
        match own {
            Some(own) => {
                let at = self.bundles.len();
                let player = self.players.get(at).or_else(|| self.players.first());
                let fresh = || Bundle::new(player.copied().unwrap_or(FAST));
                self.bundles.get(own).cloned().unwrap_or_else(fresh)
            }
            None => self
                .goods
                .clone()
                .unwrap_or_else(|| match self.players.first() {
                    Some(player) if self.bundles.is_empty() => Bundle::new(*player),
                    _ => Bundle::of_several(),
                }),
        }
    }

    fn breaks(&mut self, rule: Rule, thing: &str, says: String) {
        self.broken.push(Broken::at(rule, self.step, thing, says));
    }

    fn act(&mut self, act: &Act, bundle: &mut Bundle) {
        self.by_hand(act, bundle);
        if let Some(pose) = act.lies
            && pose != bundle.lies
        {
            self.turned(pose, bundle);
        }
        match (act.does, act.thing) {
            (Does::Hold, _) => {
                let lying = |thing: &&mut StillThing| thing.held == Held::Lies;
                bundle
                    .things
                    .iter_mut()
                    .filter(lying)
                    .for_each(|thing| thing.held = Held::ByHand);
                if let Some((_, held)) = &mut bundle.base
                    && *held == Held::Lies
                {
                    *held = Held::ByHand;
                }
            }
            (Does::Bind | Does::Roll, _) => {
                self.laid(act, bundle);
                bundle.hold_all();
                bundle.closed = true;
            }
            (Does::Wrap | Does::Slide, Thing::Part(_)) if act.at == Some(Spot::Around) => {
                self.moved(act, bundle, "it is turned as something goes around it");
                self.laid(act, bundle);
                bundle.hold_all();
                bundle.closed = true;
                bundle.covered = true;
            }
            (_, Thing::Goods) if self.step.stage == Stage::Box => {
                self.moved(act, bundle, "it goes into the box");
            }
            (Does::Lay, Thing::Piece) => {
                if let Some(Thing::Part(board)) = act.to {
                    self.raised(bundle);
                    bundle.base = Some((board, Held::Lies));
                }
            }
            (Does::Tape, _) if act.at == Some(Spot::Face) && act.thing == Thing::Piece => {
                if bundle.player.bears != Bears::Fast && !bundle.covered {
                    let says = "tape is laid on a face that bears none".to_owned();
                    self.breaks(Rule::Faces, Thing::Piece.key(), says);
                }
            }
            _ => {
                self.laid(act, bundle);
                if !act.strips.is_empty() {
                    bundle.fix(act);
                    if bundle.is_bound_by(act) {
                        bundle.bound();
                    }
                }
            }
        }
        if act.keeps_off.is_some() {
            bundle.keeps_off = act.keeps_off;
        }
    }

    /// A hand that holds something does nothing that takes two.
    fn by_hand(&mut self, act: &Act, bundle: &mut Bundle) {
        let held = bundle
            .things
            .iter()
            .find(|thing| thing.held == Held::ByHand);
        let Some(held) = held.map(|thing| thing.part) else {
            return;
        };
        if !matches!(act.does, Does::Wrap | Does::Bind | Does::Hold) {
            let says = format!("a hand holds the {held}, and what comes next takes two");
            self.breaks(Rule::Hands, held.key(), says);
            bundle.hold_all();
        }
    }

    fn turned(&mut self, pose: Pose, bundle: &mut Bundle) {
        self.moving(bundle, &format!("it is turned {}", pose.name()));
        if pose == Pose::FaceDown {
            let says = match bundle.player.bears {
                Bears::Bare if !bundle.closed => Some("a face that nothing may touch is laid down"),
                Bears::Soft if !bundle.covered => Some("a bare face is laid down on the bench"),
                _ => None,
            };
            if let Some(says) = says {
                self.breaks(Rule::Faces, Thing::Piece.key(), says.to_owned());
                (bundle.covered, bundle.closed) = (true, true);
            }
        }
        bundle.lies = pose;
    }

    /// It is moved as a whole: whatever lies there without being held falls.
    fn moved(&mut self, act: &Act, bundle: &mut Bundle, why: &str) {
        self.moving(bundle, why);
        if act.thing == Thing::Goods && bundle.player.bears != Bears::Fast && !bundle.covered {
            let says = "a bare face goes into the box".to_owned();
            self.breaks(Rule::Faces, Thing::Piece.key(), says);
            bundle.covered = true;
        }
    }

    fn moving(&mut self, bundle: &mut Bundle, why: &str) {
        if let Some(thing) = bundle.loose(|_| true, true) {
            self.breaks(
                Rule::Held,
                thing,
                format!("nothing holds the {thing} while {why}"),
            );
            bundle.hold_all();
        }
    }

    /// It is lifted level onto something: what lies beside it or under it stays on the bench.
    fn raised(&mut self, bundle: &mut Bundle) {
        let stays = |spot| match spot {
            Spot::Beside | Spot::Edges => true,
            Spot::Back => bundle.lies == Pose::FaceUp,
            Spot::Face => bundle.lies == Pose::FaceDown,
            _ => false,
        };
        if let Some(thing) = bundle.loose(stays, false) {
            let says = format!("nothing holds the {thing} while the piece is lifted onto a board");
            self.breaks(Rule::Held, thing, says);
            bundle.hold_all();
        }
    }

    /// Things come to lie on it.
    fn laid(&mut self, act: &Act, bundle: &mut Bundle) {
        let Some(at) = act.at else {
            return;
        };
        if at == Spot::Both {
            self.raised(bundle);
        }
        let parts = || std::iter::once(act.thing).chain(act.also.iter().copied());
        let parts: Vec<PartId> = parts()
            .filter_map(|thing| match thing {
                Thing::Part(part) => Some(part),
                _ => None,
            })
            .collect();
        for part in &parts {
            self.touched((*part, at), bundle);
        }
        let held = match (act.does, at) {
            (_, Spot::FaceFolded) | (Does::Fold, Spot::Around) => Held::Folded,
            (Does::Push, _) => Held::Fixed,
            // What is pushed over the corners holds what they go around.
            (Does::Fold, Spot::Corners) => {
                bundle.hold_all();
                Held::Lies
            }
            _ => Held::Lies,
        };
        let lies = parts.into_iter().map(|part| StillThing { part, at, held });
        bundle.things.extend(lies);
        bundle.covered |= matches!(at, Spot::Face | Spot::FaceFolded | Spot::Both);
    }

    /// A thing touches the face, or its border.
    fn touched(&mut self, (part, at): (PartId, Spot), bundle: &Bundle) {
        if bundle.covered || bundle.closed {
            return;
        }
        let over = matches!(
            at,
            Spot::Face | Spot::FaceFolded | Spot::Both | Spot::Around
        );
        let kept_off = bundle.keeps_off.is_some_and(|gap| gap > Length::ZERO);
        let says = match bundle.player.bears {
            Bears::Bare if over && !kept_off => {
                format!("the {part} touches a face that nothing may touch")
            }
            Bears::Bare if at == Spot::Corners && !self.on_border(part, bundle) => {
                format!("the {part} reaches onto the picture")
            }
            Bears::Soft if over && !kept_off && !is_flat(part) => {
                format!("the {part} lies on a bare face")
            }
            Bears::Soft if at == Spot::Corners && part != PartId::PaperForPockets => {
                format!("the {part} is pushed over bare paint")
            }
            _ => return,
        };
        self.breaks(Rule::Faces, part.key(), says);
    }

    /// Whether what goes over the corners stays on the bare border: to half the leg of a corner that is folded from a square.
    fn on_border(&self, part: PartId, bundle: &Bundle) -> bool {
        let square = |part: &Part| match part.take {
            Take::Run { area_m2, .. } => area_m2.map(|area| (area / CORNERS).as_m2().sqrt()),
            _ => None,
        };
        let mut parts = self.step.parts.iter().filter(|one| one.id == part);
        let side = parts.find_map(square).unwrap_or_default();
        let leg = Length::mm(side * MM_PER_M / std::f64::consts::SQRT_2);
        bundle
            .player
            .border
            .is_some_and(|border| border >= leg / 2.0 + OFF_THE_PICTURE)
    }
}

const CORNERS: f64 = 4.0;
const MM_PER_M: f64 = 1e3;
const FAST: Player = Player {
    bears: Bears::Fast,
    border: None,
};
