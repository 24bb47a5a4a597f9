//! The steps of a box and of a second one around it, by the side through which something gets in.

use super::{
    PackStep, Stage, container_of, looks,
    order::{Order, key_of},
    step::{InBox, Reach},
    words::{self, Said, capital},
};
use crate::{
    act::{Act, Does, Reached, Thing},
    container::{Container, WayIn, alike},
    enclosure::EnclosurePlace,
    layer::{EdgeFill, FillGap, FillTurn, LAST_END, LINING_LAST, Layer, Make, Tool, Verb},
    part::{Part, PartId, StripId, Strips},
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
    /// What closes over it, with its article.
    lid: &'static str,
    /// Whether nothing in it can be shaken before it is closed.
    pushed: bool,
    /// How a hand gets to its walls; `None` where they are no deeper than what lies there.
    within: Option<Reached>,
}

/// A share of a layer that is laid in a step of its own.
struct Share {
    key: String,
    title: String,
    acts: Vec<Act>,
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
        let what = self.goes_in();
        self.one_box((LayerSlot::Box, LayerSlot::Fill), what);
        self.lay(LayerSlot::BoxFilm, Stage::Box);
        self.lay(LayerSlot::BoxWrap, Stage::Box);
        self.one_box(
            (LayerSlot::SecondBox, LayerSlot::SecondFill),
            "the inner box",
        );
    }

    fn one_box(&mut self, (slot, fill): (LayerSlot, LayerSlot), what: &'static str) {
        let Some(layer) = self.layer(slot) else {
            return;
        };
        let container = container_of(self.plan, layer, self.pieces, self.told_in);
        let Some(container) = container else {
            return;
        };
        let one = OneBox {
            slot,
            fill,
            way_in: container.way_in,
            what,
            lid: container.lid,
            pushed: container.is_pushed_together(),
            within: within(layer, &container),
        };
        if container.all_at_once {
            self.all_at_once(one, layer, &container);
        } else {
            self.in_turn(one, layer, &container);
        }
        self.sealed(one, layer, &container);
    }

    /// The step that makes a container ready, with the acts of its making.
    fn made(&self, one: OneBox, layer: &Layer, container: &Container) -> PackStep {
        let step = self.laid(layer, &key_of("layer", one.slot), Stage::Box, Vec::new());
        PackStep {
            strips: strips_of(layer, container, Torn::Ready),
            title: container.titles.ready.clone(),
            ..step
        }
        .acting(mended(layer).as_slice())
    }

    /// The same in as many steps as it is built in, of the parts that are there by then: each takes what its acts name, and its share of the
    /// minutes.
    fn made_in_stages(
        &self,
        one: OneBox,
        (layer, container): (&Layer, &Container),
        parts: Vec<Part>,
    ) -> Vec<PackStep> {
        let whole = self.made(one, layer, container);
        let weighed = matches!(&layer.make, Make::TravelCase(case) if !case.kept);
        let minutes = |acts: &[Act]| {
            let count = |acts: &[Act]| f64::from(u32::try_from(acts.len()).unwrap_or(u32::MAX));
            whole.minutes * (count(acts) / count(&container.ready).max(1.0))
        };
        let mut steps = Vec::with_capacity(container.stages.len() + 1);
        let (mut acts, mut parts) = (container.ready.as_slice(), parts);
        for stage in &container.stages {
            let (own, others) = acts.split_at(stage.acts.min(acts.len()));
            acts = others;
            let (taken, left) = taken_by(own, parts);
            parts = left;
            let is_last = steps.len() + 1 == container.stages.len();
            let step = PackStep {
                key: key_of(stage.key, one.slot),
                title: stage.title.to_owned(),
                says: Vec::new(),
                acts: Vec::new(),
                strips: Vec::new(),
                parts: taken,
                tools: used_by(own, &whole.tools),
                minutes: minutes(own),
                look: whole.look.filter(|_| is_last),
                ..whole.clone()
            };
            steps.push(step.acting(own));
        }
        let staged = !steps.is_empty();
        let last = PackStep {
            parts,
            minutes: minutes(acts),
            tools: if staged {
                used_by(acts, &whole.tools)
            } else {
                whole.tools.clone()
            },
            look: whole.look.filter(|_| !staged),
            types: if weighed {
                vec!["choices.case_empty"]
            } else {
                Vec::new()
            },
            ..whole
        };
        steps.push(last.acting(acts));
        steps
    }

    /// What is laid beside the goods goes in with them: no hand gets in later.
    fn all_at_once(&mut self, one: OneBox, layer: &Layer, container: &Container) {
        let lining = self.lining(one);
        let padding = self.rest(one, LayerSlot::PaddingSheets);
        let edges = self.rest(one, LayerSlot::Edges);
        let fill = self.fill(one);
        for shares in [lining, padding, edges, fill] {
            for steps in [shares.before, shares.on_piece, shares.after] {
                self.add((one, Reach::Under), steps);
            }
        }
        self.papers((one, Reach::Under), |_| true);
        let step = self
            .made(one, layer, container)
            .acting(&container.ready)
            .acting(&container.load)
            .at_box(one.slot, Reach::GoesIn);
        let verb = match container.load.first().map(|act| act.does) {
            Some(Does::Lay) => Verb::Lay,
            _ => Verb::Slide,
        };
        self.then(PackStep { verb, ..step });
        self.close(one, container, Vec::new());
    }

    /// A container that stands or lies ready: what can't be reached later first, the goods, then the rest.
    fn in_turn(&mut self, one: OneBox, layer: &Layer, container: &Container) {
        let (mut last, mut parts): (Vec<Part>, Vec<Part>) = layer
            .parts
            .iter()
            .cloned()
            .partition(|part| layer.make.is_lid(part) || part.id == LAST_END);
        // What screws it shut is taken then.
        let screwed = container.close.iter().any(|act| act.does == Does::Screw);
        let lid = parts.iter().rposition(|part| part.id == PartId::Screw);
        if let Some(lid) = lid.filter(|_| screwed) {
            last.push(parts.remove(lid));
        }
        let key = key_of("layer", one.slot);
        for step in self.made_in_stages(one, (layer, container), parts) {
            self.then(step.at_box(one.slot, Reach::Under));
        }
        if let Some(follows) = &container.follows {
            let cut = if one.slot == LayerSlot::SecondBox {
                "cut_second_lid"
            } else {
                "cut_lid"
            };
            self.cut_parts((cut, &key), last.clone(), Some(follows.clone()));
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
        self.going_in(one, container);
        if !slides {
            self.papers((one, Reach::Over), floor);
        }
        self.add((one, Reach::Over), edges.after);
        self.add((one, Reach::Over), padding.after);
        self.add((one, Reach::Over), fill.after);
        self.add((one, Reach::Over), lining.after);
        self.papers((one, Reach::Over), |place| !floor(place));
        self.close(one, container, last);
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
    fn going_in(&mut self, one: OneBox, container: &Container) {
        let slides = matches!(
            one.way_in,
            WayIn::Edge | WayIn::ShortEdge | WayIn::Halves | WayIn::End
        );
        let verb = if slides { Verb::Slide } else { Verb::Lay };
        let key = key_of("in", one.slot);
        let step = PackStep::plain(&key, Stage::Box, verb, &container.titles.load)
            .acting(&container.load)
            .at_box(one.slot, Reach::GoesIn);
        self.then(step);
    }

    /// What sentences about a layer in a box depend on.
    fn said_in(&self, layer: &Layer, one: OneBox) -> Said {
        Said {
            lid: one.lid,
            within: one.within,
            ..self.said(Some(layer), Some(one.way_in), one.what)
        }
    }

    /// The steps of a layer's shares: each takes its part of the minutes that are not cutting.
    fn shared(&self, layer: &Layer, shares: Vec<Share>) -> Vec<PackStep> {
        let count = f64::from(u32::try_from(shares.len()).unwrap_or(1).max(1));
        shares
            .into_iter()
            .map(|share| {
                let step = self.laid(layer, &share.key, Stage::Box, share.acts);
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
        let said = self.said_in(layer, one);
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
                    // What is pushed together is shaken once it is one.
                    step.look = Some(looks::STILL).filter(|_| !one.pushed);
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
            FillTurn::OnPiece => format!("Pad the {} of {}", listed(&gaps), one.what),
            FillTurn::Before | FillTurn::After => format!("Fill the {}", listed(&gaps)),
        };
        Share {
            key: slot,
            title,
            acts: said.filling(fill, turn, &layer.material_name),
            parts: layer
                .parts
                .iter()
                .filter(|part| {
                    let tape = turn == FillTurn::OnPiece && part.id == PartId::TapeForPads;
                    part.id == turn.part() || tape
                })
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
        let said = self.said_in(layer, one);
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
            acts: vec![said.lining(lining, last).filling(lining.thickness, false)],
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
        let said = self.said_in(layer, one);
        let is_loose = |part: &Part| part.id == FillTurn::After.part();
        let (loose, whole): (Vec<Part>, Vec<Part>) =
            layer.parts.iter().cloned().partition(is_loose);
        let mut acts = words::laying(layer, &said);
        if let Some(last) = acts.pop() {
            acts.push(last.filling(layer.adds.widest(), false));
        }
        let first = Share {
            key: key_of("layer", slot),
            title: capital(slot.name()),
            acts,
            parts: whole,
            strips: layer.strips.clone(),
            verb: layer.handling().verb,
        };
        let mut each = vec![first];
        if !loose.is_empty() {
            each.push(Share {
                key: key_of("top", slot),
                title: "Fill the top".to_owned(),
                acts: vec![
                    Act::on(
                        Does::Fill,
                        FillTurn::After.part(),
                        "Crumple what is left over onto the upper edge, where the strip is open.",
                    )
                    .with(Thing::Goods),
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

    fn close(&mut self, one: OneBox, container: &Container, parts: Vec<Part>) {
        let measured = self.layer(one.slot).filter(|_| container.measured);
        let types: Vec<&str> = measured
            .map(|layer| {
                let Envelope { across, up, .. } = layer.envelope;
                if across > up {
                    "parcel.across"
                } else {
                    "parcel.up"
                }
            })
            .into_iter()
            .collect();
        // It was shaken once the last fill was in.
        let shaken = self
            .steps
            .iter()
            .any(|step| step.layer == Some(one.fill) && step.look.is_some());
        let step = PackStep::plain(
            &key_of("close", one.slot),
            Stage::Box,
            Verb::Fold,
            &container.titles.close,
        )
        .acting(&container.close)
        .at_box(one.slot, Reach::Closes);
        let layer = self.layer(one.slot);
        let strips = layer.map(|layer| strips_of(layer, container, Torn::Close));
        let strips = strips.unwrap_or_default();
        let tools = if strips.is_empty() {
            Vec::new()
        } else {
            vec![Tool::TapeGun, Tool::Scissors]
        };
        self.then(PackStep {
            look: Some(looks::STILL).filter(|_| !shaken),
            types,
            parts,
            strips,
            tools,
            ..step
        });
    }

    fn sealed(&mut self, one: OneBox, layer: &Layer, container: &Container) {
        // What is screwed shut is not taped.
        if container.seal.is_empty() {
            return;
        }
        let step = PackStep::plain(
            &key_of("seal", one.slot),
            Stage::Box,
            Verb::Tape,
            &container.titles.seal,
        )
        .acting(&container.seal)
        .at_box(one.slot, Reach::Closes);
        self.then(PackStep {
            strips: strips_of(layer, container, Torn::Seal),
            tools: vec![Tool::TapeGun, Tool::Scissors],
            ..step
        });
    }
}

/// How a hand gets to the bottom of a box that stands, or lies level: through what is open, as deep as the wall opposite; of a telescope
/// into one half.
fn within(layer: &Layer, container: &Container) -> Option<Reached> {
    let Envelope {
        across,
        up,
        through,
    } = layer.envelope;
    let [long, short] = [across.max(up), across.min(up)];
    let (deep, mouth) = match container.way_in {
        WayIn::Edge => (short, [long, through]),
        WayIn::ShortEdge => (long, [short, through]),
        WayIn::Halves => (long / 2.0, [short, through]),
        WayIn::Face => (through, [long, short]),
        WayIn::Blank | WayIn::End => return None,
    };
    Some(Reached {
        deep,
        mouth: container.mouth.unwrap_or(mouth),
    })
}

/// Lists a few names, as `floor and sides`.
fn listed(names: &[&str]) -> String {
    match names {
        [] => String::new(),
        [one] => (*one).to_owned(),
        [first @ .., last] => format!("{} and {last}", first.join(", ")),
    }
}

/// Taping over the scores that were cut through by mistake, where there are any.
fn mended(layer: &Layer) -> Option<Act> {
    let on = StripId::OverEachScoreThatWasCut;
    let part = layer.parts.first()?.id;
    layer.strips.iter().any(|strips| strips.on == on).then(|| {
        Act::tape(
            part,
            &[on],
            "Tape over each score that was cut through, on the outside and from end to end, before it is folded.",
        )
    })
}

/// Parts a layer's parts into those that some acts name, or glue and screw with, and the others. Screws lie in the order of the joints, as
/// the acts that drive them.
fn taken_by(acts: &[Act], parts: Vec<Part>) -> (Vec<Part>, Vec<Part>) {
    let named: Vec<Thing> = acts.iter().flat_map(Act::things).collect();
    let glues = acts.iter().any(|act| act.does == Does::Glue);
    let mut screws = acts.iter().filter(|act| act.does == Does::Screw).count();
    parts.into_iter().partition(|part| match part.id {
        PartId::Screw => {
            let is_driven = screws > 0;
            screws = screws.saturating_sub(1);
            is_driven
        }
        PartId::Glue => glues,
        id => named.contains(&Thing::Part(id)),
    })
}

/// The tools of a layer that some of its acts are done with.
fn used_by(acts: &[Act], tools: &[Tool]) -> Vec<Tool> {
    let does = |what: Does| acts.iter().any(|act| act.does == what);
    let used = |tool: &Tool| match tool {
        Tool::Clamps => does(Does::Glue),
        Tool::Drill | Tool::Screwdriver => does(Does::Screw),
        // Battens are sawn in a step of their own.
        Tool::Saw => false,
        _ => true,
    };
    tools.iter().copied().filter(used).collect()
}

/// When strips of a container are torn.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Torn {
    /// While it is made.
    Ready,
    /// While it is closed, as at the corners of a lid that follows.
    Close,
    /// Last of all.
    Seal,
}

/// The strips of a container that are torn at a time.
fn strips_of(layer: &Layer, container: &Container, when: Torn) -> Vec<Strips> {
    let kinds = alike(&container.strips);
    let closes = |on| container.close.iter().any(|act| act.strips.contains(&on));
    let torn = |at: usize| match kinds.get(at) {
        // A score that was cut is taped before the box is folded.
        None => Torn::Ready,
        Some((strip, _)) if strip.first => Torn::Ready,
        Some((strip, _)) if closes(strip.on) => Torn::Close,
        Some(_) => Torn::Seal,
    };
    let all = layer.strips.iter().enumerate();
    all.filter(|(at, _)| torn(*at) == when)
        .map(|(_, strips)| *strips)
        .collect()
}
