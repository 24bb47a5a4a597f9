//! The steps of a box and of a second one around it, by the side through which something gets in.

use super::{
    PackStep, Stage, looks,
    order::{Order, key_of},
    step::{InBox, Reach},
    words::{self, Said, capital},
};
use crate::{
    carton::{Carton, LID_PLAY, WayIn, alike},
    enclosure::EnclosurePlace,
    house::CartonStyle,
    layer::{EdgeFill, FillGap, FillTurn, LINING_LAST, Layer, Make, Tool, Verb},
    part::{Part, PartId, Strips},
    quantity::Telling,
    space::{Envelope, LayerSlot},
};

/// One of two boxes while its steps are put in order.
#[derive(Clone, Copy)]
struct OneBox {
    slot: LayerSlot,
    fill: LayerSlot,
    way_in: WayIn,
    /// What goes into it.
    what: &'static str,
    /// Which of two it is, or the only one.
    id: PartId,
}

/// A share of a layer that is laid in a step of its own.
struct Share {
    key: String,
    title: String,
    says: Vec<String>,
    parts: Vec<Part>,
    strips: Vec<Strips>,
    verb: Verb,
}

/// Where each share of a layer ends up.
#[derive(Default)]
struct Shares {
    before: Vec<PackStep>,
    on_piece: Vec<PackStep>,
    after: Vec<PackStep>,
}

impl Order<'_> {
    /// The box, and a second one around it: set up, filled, closed and sealed.
    pub(super) fn boxed(&mut self) {
        let two = self.layer(LayerSlot::SecondBox).is_some();
        let what = self.goes_in();
        let id = if two { PartId::InnerBox } else { PartId::Box };
        self.one_box((LayerSlot::Box, LayerSlot::Fill), (what, id));
        self.lay(LayerSlot::BoxFilm, Stage::Box);
        self.lay(LayerSlot::BoxWrap, Stage::Box);
        self.one_box(
            (LayerSlot::SecondBox, LayerSlot::SecondFill),
            ("the inner box", PartId::OuterBox),
        );
    }

    fn one_box(
        &mut self,
        (slot, fill): (LayerSlot, LayerSlot),
        (what, id): (&'static str, PartId),
    ) {
        let Some(layer) = self.layer(slot) else {
            return;
        };
        let Some(way_in) = layer.make.way_in() else {
            return;
        };
        let one = OneBox {
            slot,
            fill,
            way_in,
            what,
            id,
        };
        match &layer.make {
            Make::Mailer(_) | Make::Sandwich(_) => self.mailed(one, layer),
            Make::Tube(_) => self.in_tube(one, layer),
            _ => self.laid_in(one, layer),
        }
        // What is screwed shut is not taped.
        if !matches!(layer.make, Make::TravelCase(_)) {
            self.sealed(one, layer);
        }
    }

    /// What is said of a box, and the step that makes it.
    fn made(&self, one: OneBox, layer: &Layer, reach: Reach) -> (Said, PackStep) {
        let said = self.said(Some(layer), Some(one.way_in), one.what);
        let says = words::laying(layer, &said);
        let step = PackStep {
            strips: strips_of(layer, true),
            ..self.laid(layer, &key_of("layer", one.slot), Stage::Box, says)
        };
        (said, step.at_box(one.slot, reach))
    }

    /// Boards, papers behind, in.
    fn mailed(&mut self, one: OneBox, layer: &Layer) {
        let lining = self.lining(one);
        let padding = self.rest(one, LayerSlot::PaddingSheets);
        let edges = self.rest(one, LayerSlot::Edges);
        let fill = self.fill(one);
        // All of it goes in with the piece: no hand gets into a mailer.
        for shares in [lining, padding, edges, fill] {
            for steps in [shares.before, shares.on_piece, shares.after] {
                self.add((one, Reach::Under), steps);
            }
        }
        self.papers((one, Reach::Under), |_| true);
        let (_, step) = self.made(one, layer, Reach::GoesIn);
        let (title, verb) = match &layer.make {
            Make::Sandwich(_) => ("Lay the boards on their sleeve", Verb::Lay),
            _ => ("Into the mailer", Verb::Slide),
        };
        self.then(PackStep {
            title: title.to_owned(),
            verb,
            ..step
        });
        self.close(one, layer, Vec::new());
    }

    /// A cap and a pad, the roll, fill around it, papers in its core, then the other pad and cap.
    fn in_tube(&mut self, one: OneBox, layer: &Layer) {
        let (said, step) = self.made(one, layer, Reach::Under);
        let (last, first): (Vec<Part>, Vec<Part>) = layer
            .parts
            .iter()
            .cloned()
            .partition(|part| part.id == crate::layer::LAST_END);
        self.then(PackStep {
            parts: first,
            title: "Close one end of the tube".to_owned(),
            ..step
        });
        self.going_in(one, &said);
        let fill = self.fill(one);
        self.add((one, Reach::Over), fill.after);
        self.papers((one, Reach::Over), |_| true);
        self.close(one, layer, last);
    }

    /// A box with a floor and walls, or a blank that gets them: what can't be reached later first, the piece, then the rest.
    fn laid_in(&mut self, one: OneBox, layer: &Layer) {
        let (said, step) = self.made(one, layer, Reach::Under);
        let (lids, parts): (Vec<Part>, Vec<Part>) = layer
            .parts
            .iter()
            .cloned()
            .partition(|part| layer.make.is_lid(part));
        let key = key_of("layer", one.slot);
        self.then(PackStep {
            parts,
            title: made_title(one, &layer.make),
            ..step
        });
        if !lids.is_empty() {
            let cut = if one.slot == LayerSlot::SecondBox {
                "cut_second_lid"
            } else {
                "cut_lid"
            };
            self.cut_parts(
                (cut, &key),
                lids.clone(),
                Some(measured_lid(&layer.make, self.told_in)),
            );
        }
        let fill = self.fill(one);
        let lining = self.lining(one);
        let padding = self.rest(one, LayerSlot::PaddingSheets);
        let edges = self.rest(one, LayerSlot::Edges);
        let floor = |place: EnclosurePlace| place == EnclosurePlace::OnFloor;
        let slides = matches!(one.way_in, WayIn::Edge | WayIn::ShortEdge | WayIn::Halves);
        self.add((one, Reach::Under), lining.before);
        self.add((one, Reach::Under), fill.before);
        if slides {
            self.papers((one, Reach::Under), floor);
        }
        self.add((one, Reach::Under), padding.before);
        self.add((one, Reach::Under), padding.on_piece);
        self.add((one, Reach::Under), edges.on_piece);
        self.add((one, Reach::Under), fill.on_piece);
        self.going_in(one, &said);
        if !slides {
            self.papers((one, Reach::Over), floor);
        }
        self.add((one, Reach::Over), edges.after);
        self.add((one, Reach::Over), padding.after);
        self.add((one, Reach::Over), fill.after);
        self.add((one, Reach::Over), lining.after);
        self.papers((one, Reach::Over), |place| !floor(place));
        self.close(one, layer, lids);
    }

    fn papers(&mut self, (one, reach): (OneBox, Reach), of: impl Fn(EnclosurePlace) -> bool) {
        if one.slot == LayerSlot::Box {
            let began = self.steps.len();
            self.enclose(LayerSlot::BoxPapers, Stage::Box, Some(one.way_in), of);
            for step in self.steps.iter_mut().skip(began) {
                step.in_box = Some(InBox {
                    slot: one.slot,
                    reach,
                });
            }
        }
    }

    fn add(&mut self, (one, reach): (OneBox, Reach), steps: Vec<PackStep>) {
        for step in steps {
            self.then(step.at_box(one.slot, reach));
        }
    }

    /// What goes into the box.
    fn going_in(&mut self, one: OneBox, said: &Said) {
        let slides = matches!(
            one.way_in,
            WayIn::Edge | WayIn::ShortEdge | WayIn::Halves | WayIn::End
        );
        let verb = if slides { Verb::Slide } else { Verb::Lay };
        let key = key_of("in", one.slot);
        let step = PackStep::plain(&key, Stage::Box, verb, &going_in_title(one))
            .saying(said.going_in())
            .at_box(one.slot, Reach::GoesIn);
        self.then(step);
    }

    /// The steps of a layer's shares: each takes its part of the minutes that are not cutting.
    fn shared(&self, layer: &Layer, shares: Vec<Share>) -> Vec<PackStep> {
        let count = f64::from(u32::try_from(shares.len()).unwrap_or(1).max(1));
        shares
            .into_iter()
            .map(|share| {
                let step = self.laid(layer, &share.key, Stage::Box, share.says);
                PackStep {
                    parts: share.parts,
                    strips: share.strips,
                    minutes: step.minutes / count,
                    title: share.title,
                    verb: share.verb,
                    ..step
                }
            })
            .collect()
    }

    /// The fill, turn by turn; with it what the skirt leaves open on top.
    fn fill(&self, one: OneBox) -> Shares {
        let mut shares = Shares::default();
        let Some(layer) = self.layer(one.fill) else {
            return shares;
        };
        let Make::EdgeFill(fill) = &layer.make else {
            return shares;
        };
        let said = self.said(Some(layer), Some(one.way_in), one.what);
        let turns: Vec<FillTurn> = FillTurn::ALL
            .into_iter()
            .filter(|turn| fill.laid(*turn).next().is_some())
            .collect();
        let each = turns
            .iter()
            .map(|turn| self.filling(one, (layer, fill), *turn, &said))
            .collect();
        for (turn, mut step) in turns.into_iter().zip(self.shared(layer, each)) {
            match turn {
                FillTurn::Before => shares.before.push(step),
                FillTurn::OnPiece => shares.on_piece.push(step),
                FillTurn::After => {
                    // A telescope is shaken once both halves are one.
                    step.look = Some(looks::STILL).filter(|_| one.way_in != WayIn::Halves);
                    shares.after.push(step);
                }
            }
        }
        shares
    }

    fn filling(
        &self,
        one: OneBox,
        (layer, fill): (&Layer, &EdgeFill),
        turn: FillTurn,
        said: &Said,
    ) -> Share {
        let slot = match (turn, one.fill) {
            (FillTurn::OnPiece, LayerSlot::Fill) => "back/filler".to_owned(),
            (FillTurn::OnPiece, _) => "back/second_filler".to_owned(),
            (turn, slot) => key_of(turn.key(), slot),
        };
        let mut gaps: Vec<&str> = fill
            .laid(turn)
            .map(|place| match (turn, place.gap) {
                // In a box that lies, what is behind the piece is under it.
                (FillTurn::Before, FillGap::Behind) => FillGap::Floor.name(),
                (_, gap) => gap.name(),
            })
            .collect();
        gaps.dedup();
        let title = match turn {
            FillTurn::OnPiece => format!("Pad the back of {}", one.what),
            FillTurn::Before | FillTurn::After => format!("Fill the {}", listed(&gaps)),
        };
        Share {
            key: slot,
            title,
            says: said.filling(fill, turn, &layer.material_name),
            parts: layer
                .parts
                .iter()
                .filter(|part| part.id == turn.part() || part.id == turn.tape())
                .cloned()
                .collect(),
            strips: fill
                .pad_tape
                .iter()
                .zip(&layer.strips)
                .filter(|(tape, _)| tape.turn == turn)
                .map(|(_, strips)| *strips)
                .collect(),
            verb: if turn == FillTurn::OnPiece {
                Verb::Tape
            } else {
                Verb::Lay
            },
        }
    }

    /// The lining: what stands before the piece is in, and what comes last.
    fn lining(&self, one: OneBox) -> Shares {
        let mut shares = Shares::default();
        let Some(layer) = self
            .layer(LayerSlot::Lining)
            .filter(|_| one.slot == LayerSlot::Box)
        else {
            return shares;
        };
        let Make::Lining(lining) = &layer.make else {
            return shares;
        };
        let said = self.said(Some(layer), Some(one.way_in), one.what);
        let turns: Vec<bool> = [false, true]
            .into_iter()
            .filter(|last| lining.pieces.iter().any(|piece| piece.last == *last))
            .collect();
        let share = |last: bool| Share {
            key: if last { "top/lining" } else { "layer/lining" }.to_owned(),
            title: if last {
                "Line the rest"
            } else {
                "Line the box"
            }
            .to_owned(),
            says: said.lining(lining, last),
            parts: layer
                .parts
                .iter()
                // Paper around crumbling foam goes with the first pieces, or with all where they are set at once.
                .filter(|part| turns.len() == 1 || (part.id == LINING_LAST) == last)
                .cloned()
                .collect(),
            strips: Vec::new(),
            verb: Verb::Lay,
        };
        let each = turns.iter().map(|last| share(*last)).collect();
        for (last, step) in turns.into_iter().zip(self.shared(layer, each)) {
            if last {
                shares.after.push(step);
            } else {
                shares.before.push(step);
            }
        }
        shares
    }

    /// A layer of the first box that is laid whole: fixed to the piece where it slides in, under it where it lies on its back, else
    /// after it; the loose fill on top of a skirt comes after it.
    fn rest(&self, one: OneBox, slot: LayerSlot) -> Shares {
        let mut shares = Shares::default();
        let Some(layer) = self.layer(slot).filter(|_| one.slot == LayerSlot::Box) else {
            return shares;
        };
        let said = self.said(Some(layer), Some(one.way_in), one.what);
        let is_loose = |part: &Part| part.id == FillTurn::After.part();
        let (loose, whole): (Vec<Part>, Vec<Part>) =
            layer.parts.iter().cloned().partition(is_loose);
        let first = Share {
            key: key_of("layer", slot),
            title: capital(slot.name()),
            says: words::laying(layer, &said),
            parts: whole,
            strips: layer.strips.clone(),
            verb: layer.handling().verb,
        };
        let mut each = vec![first];
        if !loose.is_empty() {
            each.push(Share {
                key: key_of("top", slot),
                title: "Fill the top".to_owned(),
                says: vec![
                    "Crumple what is left over onto the upper edge, where the strip is open."
                        .to_owned(),
                ],
                parts: loose,
                strips: Vec::new(),
                verb: Verb::Lay,
            });
        }
        let mut steps = self.shared(layer, each).into_iter();
        let first = steps.next();
        match (one.way_in, slot) {
            (WayIn::Edge | WayIn::ShortEdge | WayIn::Halves, _) => shares.on_piece.extend(first),
            (WayIn::Face, LayerSlot::PaddingSheets) => shares.before.extend(first),
            (WayIn::Face | WayIn::Blank | WayIn::End, _) => shares.after.extend(first),
        }
        shares.after.extend(steps);
        shares
    }

    fn close(&mut self, one: OneBox, layer: &Layer, parts: Vec<Part>) {
        let telescoped = layer
            .make
            .carton()
            .filter(|carton| carton.style == CartonStyle::Telescope)
            .map(|_| {
                let Envelope { across, up, .. } = layer.envelope;
                let side = if across > up {
                    "parcel.across"
                } else {
                    "parcel.up"
                };
                (side, self.told_in.length(layer.envelope.long_side()))
            });
        let types: Vec<&str> = telescoped.iter().map(|(side, _)| *side).collect();
        let filled = self.layer(one.fill).is_some_and(|fill| match &fill.make {
            Make::EdgeFill(fill) => fill
                .laid(FillTurn::After)
                .any(|place| place.gap == FillGap::Edges),
            _ => false,
        });
        let (title, mut says) = closing(one, &layer.make, filled);
        if let Some((_, long)) = telescoped {
            says.push(format!(
                "Push the halves into each other until it is {long} long outside, or as far as the padding lets them."
            ));
            says.push("Type the length that it then has here: the prices follow it.".to_owned());
        }
        // It was shaken once the last fill was in.
        let shaken = self
            .steps
            .iter()
            .any(|step| step.layer == Some(one.fill) && step.look.is_some());
        self.then(PackStep {
            look: Some(looks::STILL).filter(|_| !shaken),
            types,
            parts,
            verb: Verb::Fold,
            ..PackStep::plain(&key_of("close", one.slot), Stage::Box, Verb::Fold, title)
                .saying(says)
                .at_box(one.slot, Reach::Closes)
        });
    }

    fn sealed(&mut self, one: OneBox, layer: &Layer) {
        let says = match &layer.make {
            Make::Sandwich(_) => "Tape the lap along its whole length, then both open edges.",
            Make::Mailer(_) => "Press the flap down along its whole width, and tape it across.",
            Make::Tube(_) => "Tape the cap all round, half on the cap and half on the tube.",
            _ => {
                "Every seam first, then corners and edges, so that nothing catches; rub each strip down."
            }
        };
        let inner = (one.id == PartId::InnerBox).then_some(
            "Write on it which side is the face and which edge the top: the outer box hides both.",
        );
        self.then(PackStep {
            strips: strips_of(layer, false),
            tools: vec![Tool::TapeGun, Tool::Scissors],
            ..PackStep::plain(
                &key_of("seal", one.slot),
                Stage::Box,
                Verb::Tape,
                &format!("Seal the {}", sealed_name(one, &layer.make)),
            )
            .saying(std::iter::once(says).chain(inner))
            .at_box(one.slot, Reach::Closes)
        });
    }
}

fn sealed_name(one: OneBox, make: &Make) -> &'static str {
    match make {
        Make::Mailer(_) => "mailer",
        Make::Sandwich(_) => "sleeve",
        Make::Tube(_) => "tube",
        _ => one.id.name(),
    }
}

/// Lists a few names, as `floor and sides`.
fn listed(names: &[&str]) -> String {
    match names {
        [] => String::new(),
        [one] => (*one).to_owned(),
        [first @ .., last] => format!("{} and {last}", first.join(", ")),
    }
}

fn made_title(one: OneBox, make: &Make) -> String {
    if matches!(make, Make::TravelCase(_)) {
        return "Build the case".to_owned();
    }
    match make.carton().map(|carton| carton.style) {
        Some(CartonStyle::TrayAndLid | CartonStyle::TrayAndTray | CartonStyle::SlitTray) => {
            match one.slot {
                LayerSlot::SecondBox => "Outer tray",
                _ if one.id == PartId::InnerBox => "Inner tray",
                _ => "Tray",
            }
            .to_owned()
        }
        Some(CartonStyle::Folder | CartonStyle::FolderLapped) => "Crease the folder".to_owned(),
        _ => capital(one.id.name()),
    }
}

/// How a lid is cut to its tray.
fn measured_lid(make: &Make, telling: Telling) -> String {
    let meets = match make.carton().map(|carton| carton.style) {
        Some(CartonStyle::TrayAndTray) => {
            format!(
                "inside, the lid is {} larger each way",
                telling.length(LID_PLAY)
            )
        }
        _ => "the lid ends with its walls".to_owned(),
    };
    format!(
        "Measure the folded tray outside, both ways: {meets}. What is listed here is by the sums; where the tray came out otherwise, follow the tray."
    )
}

fn going_in_title(one: OneBox) -> String {
    match one.way_in {
        WayIn::Edge | WayIn::ShortEdge | WayIn::Halves | WayIn::End => {
            format!("Slide {} in", one.what)
        }
        WayIn::Face => format!("Lay {} in", one.what),
        WayIn::Blank => format!("Lay {} on the blank", one.what),
    }
}

fn closing(one: OneBox, make: &Make, filled: bool) -> (&'static str, Vec<String>) {
    let style = make.carton().map(|carton: &Carton| carton.style);
    let (title, says): (&str, &[&str]) = match (make, style) {
        (Make::Tube(_), _) => (
            "Close the other end",
            &[
                "Push the second pad in until it is a finger's width from the roll, then the cap: nothing presses on the roll.",
            ],
        ),
        (Make::Sandwich(sandwich), _) if sandwich.of_board => (
            "Fold the sleeve around them",
            &["Fold it once around the boards, and lap its end over its beginning."],
        ),
        (Make::Sandwich(_), _) => (
            "Fold the sleeve around them",
            &["Fold the long sides of the paper over and lap them, then fold in both ends."],
        ),
        (Make::TravelCase(_), _) => (
            "Screw the lid on",
            &[
                "Lay the last lining over it, then the lid, its edges in line with the frame.",
                "Drive a screw into every hole, from one corner round; none is left out.",
            ],
        ),
        (Make::Mailer(_), _) => (
            "Close the mailer",
            &["Fold the flap over the opening without bending what lies inside."],
        ),
        (_, Some(CartonStyle::TrayAndLid | CartonStyle::SlitTray)) => (
            "Put the lid on",
            &["Lay it on all four walls, its edges in line with theirs."],
        ),
        (_, Some(CartonStyle::TrayAndTray)) => (
            "Put the lid on",
            &["Fold the lid's walls up, tape its corners, and set it over the tray."],
        ),
        (_, Some(CartonStyle::Folder | CartonStyle::FolderLapped)) if filled => (
            "Fold the lids over",
            &["They meet or lap behind the piece, and close without force."],
        ),
        (_, Some(CartonStyle::Folder | CartonStyle::FolderLapped)) => (
            "Fold it around",
            &[
                "Fold both ends up and their tucks in; fold both long walls up against them.",
                "Fold the lids over: they meet or lap behind the piece, and close without force.",
            ],
        ),
        (_, Some(CartonStyle::Telescope)) => (
            "Push the halves together",
            &["Set the outer half over the inner one, both joints on one side."],
        ),
        _ if one.slot == LayerSlot::SecondBox => (
            "Close the outer box",
            &["Fold the short flaps in, then the long ones over them: they close without force."],
        ),
        _ => (
            "Close it",
            &["Fold the short flaps in, then the long ones over them: they close without force."],
        ),
    };
    (title, says.iter().map(|one| (*one).to_owned()).collect())
}

/// The strips of a box that are torn while it is made, or those that close it.
fn strips_of(layer: &Layer, first: bool) -> Vec<Strips> {
    let seal = layer.make.carton().map_or(&[][..], |carton| &carton.seal);
    let kinds = alike(seal);
    let is_first = |at: usize| match (&layer.make, kinds.get(at)) {
        (_, Some((strip, _))) => strip.first,
        // A score that was cut is taped before the box is folded.
        (Make::SlottedBox(_) | Make::CutBox(_), None) => true,
        (_, None) => false,
    };
    let all = layer.strips.iter().enumerate();
    all.filter(|(at, _)| is_first(*at) == first)
        .map(|(_, strips)| *strips)
        .collect()
}
