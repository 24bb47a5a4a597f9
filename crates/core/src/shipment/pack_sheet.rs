//! The pack sheet: the steps of one parcel on paper, for a bench without a screen.

use jiff::civil::Date;
use serde::Serialize;

use super::{Circumstances, Matter, ShipmentInputs};
use crate::{
    act::{Act, MovePicture},
    carton::Blank,
    container::{Carton, SavedBox},
    drawing::{Drawing, LaidOpen},
    layer::{CardPocket, Layer, Make, StockLength},
    pack::{PackStep, PackView, Stage, StepState},
    part::{Part, Strips, Take},
    piece::PieceSize,
    plan::Plan,
    quantity::{Length, Telling},
    space::Direction,
};

/// What is printed.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct PackSheet {
    /// The piece.
    pub title: String,
    /// What it is, whose it is and when it is promised, line by line.
    pub about: Vec<String>,
    /// What the parcel comes to.
    pub comes_to: String,
    /// What is in the hand.
    pub tools: String,
    /// What is cut and taken, material by material.
    pub cuts: Vec<SheetCuts>,
    /// Every step that is not a cut, in the order of the job.
    pub steps: Vec<SheetStep>,
    /// Everything that is still in the way of it, in the order in which it is told.
    pub against: Vec<Matter>,
    /// To whom it goes, as that country writes it.
    pub to: Vec<String>,
    /// From whom it comes.
    pub from: Vec<String>,
    /// What is folded or sawn, with its running dimensions: every blank of the boxes, every stock length of a case.
    pub drawings: Vec<SheetDrawing>,
}

/// Something that is cut and folded, small, with its running dimensions beside it.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct SheetDrawing {
    /// Its lines.
    #[serde(flatten)]
    pub drawing: Drawing,
    /// From its left edge.
    pub across: Vec<RunningMark>,
    /// From its lower edge.
    pub up: Vec<RunningMark>,
}

/// A running dimension.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct RunningMark {
    /// In millimetres.
    pub at: f64,
    /// As the studio reads it, without its unit.
    pub text: String,
}

impl SheetDrawing {
    fn new(drawing: Drawing, [across, up]: [&[Length]; 2], telling: Telling) -> Self {
        let marks = |runs: &[Length]| {
            let mut marks: Vec<RunningMark> = Vec::with_capacity(runs.len());
            for run in runs {
                let text = telling.sides(&[*run]);
                let text = text
                    .split(NO_BREAK_SPACE)
                    .next()
                    .unwrap_or_default()
                    .to_owned();
                if marks.last().is_none_or(|last| last.text != text) {
                    marks.push(RunningMark {
                        at: run.as_mm(),
                        text,
                    });
                }
            }
            marks
        };
        Self {
            across: marks(across),
            up: marks(up),
            drawing,
        }
    }

    fn of_blank(blank: &Blank, title: &str, telling: Telling) -> Self {
        let drawing = Drawing::of_blank(blank, title, telling);
        Self::new(drawing, [&blank.runs_across, &blank.runs_up], telling)
    }

    /// Stock lengths with their saw lines, those sawn alike drawn once.
    fn of_all(stock: &[StockLength], telling: Telling) -> Vec<Self> {
        let mut alike: Vec<(&StockLength, u32)> = Vec::new();
        for one in stock {
            match alike.iter_mut().find(|(known, _)| *known == one) {
                Some((_, count)) => *count += 1,
                None => alike.push((one, 1)),
            }
        }
        alike
            .into_iter()
            .map(|(one, count)| {
                let runs: Vec<Length> = one.cuts_mm.iter().copied().chain([one.length]).collect();
                let drawing = Drawing::of_stock(one, count, telling);
                Self::new(drawing, [&runs, &[]], telling)
            })
            .collect()
    }

    /// What a layer is folded from or laid on, where a drawing says more than its sides.
    fn of_layer(layer: &Layer, size: PieceSize, told: (&str, Telling)) -> Option<Self> {
        let PieceSize {
            width,
            height,
            depth,
        } = size;
        let middle = |sheet: Length, of: Length| [(sheet - of) / 2.0, (sheet + of) / 2.0, sheet];
        match &layer.make {
            Make::CardPockets(pocket) => Some(Self::of_pocket(pocket, told.0, told.1)),
            Make::ContactSheet(sheet) if sheet.strips == 1 => {
                let folds = |side: Length| {
                    let (face, turn) = (side + depth * 2.0, sheet.turn);
                    [turn, turn + depth, turn + depth + side, turn + face, turn * 2.0 + face]
                };
                Some(Self::laid(
                    ["The face in the middle", "folded along the dashes"],
                    [sheet.sheet_width, sheet.sheet_height],
                    [&folds(width), &folds(height)],
                    told.1,
                ))
            }
            Make::Folio(folio) => Some(Self::laid(
                [
                    "The back board",
                    "the sheet lies between the dashes",
                ],
                [folio.width, folio.height],
                [&middle(folio.width, width), &middle(folio.height, height)],
                told.1,
            )),
            Make::FaceBoards(boards) if boards.proud > Length::ZERO => Some(Self::laid(
                ["The board", "the piece lies between the dashes"],
                [boards.width, boards.height],
                [&middle(boards.width, width), &middle(boards.height, height)],
                told.1,
            )),
            Make::Fixing(fixing) => Some(Self::laid(
                ["The board behind", "the piece lies between the dashes"],
                [fixing.width, fixing.height],
                [&middle(fixing.width, width), &middle(fixing.height, height)],
                told.1,
            )),
            Make::Cradle(cradle) => {
                let along = |from: Length, side: Length, whole: Length| [from, from + side, whole];
                Some(Self::new(
                    Drawing::of_cradle(cradle, [width, height]),
                    [
                        &along(cradle.left, width, cradle.width),
                        &along(cradle.below, height, cradle.height),
                    ],
                    told.1,
                ))
            }
            Make::TravelCase(case) => {
                let [long, short] = case.face_mm;
                let frame = |side: Length| [case.batten, side - case.batten, side];
                let mut along: Vec<Length> = case.across_at().flatten().chain(frame(long)).collect();
                along.sort_unstable();
                let drawing = Drawing::of_frame(case);
                Some(Self::new(drawing, [&along, &frame(short)], told.1))
            }
            Make::Wrap(strip) if strip.strips == 1 => {
                let adds = layer.adds;
                let inside = [
                    layer.envelope.across - adds.left - adds.right,
                    layer.envelope.up - adds.top - adds.bottom,
                ];
                let rolled = [strip.length];
                let [along, beside] = match strip.direction {
                    Direction::Up => [strip.length, strip.width],
                    Direction::Across => [strip.width, strip.length],
                };
                let (runs_across, runs_up): (Vec<Length>, Vec<Length>) = match strip.direction {
                    Direction::Up => (middle(strip.width, inside[0]).to_vec(), rolled.to_vec()),
                    Direction::Across => (rolled.to_vec(), middle(strip.width, inside[1]).to_vec()),
                };
                Some(Self::laid(
                    ["The strip, the piece across it", "both ends roll in to the dashes"],
                    [beside, along],
                    [&runs_across, &runs_up],
                    told.1,
                ))
            }
            Make::GlassTape(_)
            | Make::WindowSpacer(_)
            | Make::ContactSheet(_)
            | Make::Interleaves(_)
            | Make::Bundle(_)
            | Make::SlipOns(_)
            | Make::FoamCollar(_)
            | Make::RimStrip(_)
            | Make::BackFill(_)
            | Make::FaceBoards(_)
            | Make::StretchFilm(_)
            | Make::NameTag(_)
            | Make::SealedBag(_)
            | Make::Roll(_)
            | Make::Wrap(_)
            | Make::LaidTogether(_)
            | Make::FacePads(_)
            | Make::EdgePads(_)
            | Make::CornerBlocks(_)
            | Make::PaperRolls(_)
            | Make::CardSprings(_)
            | Make::Skirt(_)
            | Make::PaddingSheets(_)
            | Make::EdgeFill(_)
            | Make::Lining(_)
            // The blanks of a box are drawn on pages of their own.
            | Make::SlottedBox(_)
            | Make::CutBox(_)
            | Make::SavedBox(_)
            | Make::BoughtBox(_)
            | Make::Mailer(_)
            | Make::Sandwich(_)
            | Make::Tube(_)
            | Make::OuterPaper(_)
            | Make::Enclosures(_)
            | Make::Marks(_) => None,
        }
    }

    /// A carton that is cut, laid open with the lines along which it is; the sleeve that goes into it; a second one.
    fn of_saved(saved: &SavedBox, telling: Telling) -> Vec<Self> {
        let laid_open = LaidOpen::all_of(saved).into_iter().map(|open| {
            let (drawing, [across, up]) = Drawing::of_saved(&open, telling);
            Self::new(drawing, [&across, &up], telling)
        });
        let sleeve = saved
            .sleeve
            .iter()
            .map(|blank| Self::of_blank(blank, "Sleeve", telling));
        laid_open.chain(sleeve).collect()
    }

    fn laid(
        [what, says]: [&str; 2],
        sides: [Length; 2],
        runs: [&[Length]; 2],
        telling: Telling,
    ) -> Self {
        let drawing = Drawing::of_laid([what, says].map(str::to_owned), sides, runs);
        Self::new(drawing, runs, telling)
    }

    fn of_pocket(pocket: &CardPocket, title: &str, telling: Telling) -> Self {
        let drawing = Drawing::of_pocket(pocket, title, telling);
        let runs = |wall: Length, whole: Length| [pocket.leg, pocket.leg + wall, whole];
        let across = runs(pocket.wall_a, pocket.blank_a);
        let up = runs(pocket.wall_b, pocket.blank_b);
        Self::new(drawing, [&across, &up], telling)
    }
}

const NO_BREAK_SPACE: char = '\u{a0}';

/// What is cut from one material.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct SheetCuts {
    /// What it is called.
    pub material: String,
    /// Each part with its sides.
    pub parts: Vec<String>,
    /// Whether it is done.
    pub done: bool,
}

/// One step.
#[derive(Debug, Clone, PartialEq, Serialize)]
pub struct SheetStep {
    /// What is done.
    pub title: String,
    /// How.
    pub says: String,
    /// What could hurt.
    pub minds: String,
    /// What could hurt, as words.
    pub signs: String,
    /// What is looked at before going on.
    pub asks: String,
    /// Tape as it is torn.
    pub tape: String,
    /// What is written down there by hand, as `across`.
    pub writes: Vec<&'static str>,
    /// The acts of which its sentences are made, with their pictures, as the screen shows them.
    pub acts: Vec<Act>,
    /// What is folded, laid or cut for it, where a drawing says more than its sides.
    pub drawings: Vec<SheetDrawing>,
    /// How everything lies once it is done, where something is drawn for it.
    pub still: Option<MovePicture>,
    /// Whether it is done.
    pub done: bool,
}

/// The two ends of a parcel and what stands against it, as a pack sheet prints them.
#[derive(Debug, Clone, Copy)]
pub struct SheetEnds<'a> {
    /// To whom it goes, line by line.
    pub to: &'a [String],
    /// From whom it comes, line by line.
    pub from: &'a [String],
    /// What is known of the shipment besides, on the day on which it is printed.
    pub around: Circumstances<'a>,
}

impl PackSheet {
    /// Returns the sheet of a packing between two ends. Quantities are told as `telling` has them.
    #[must_use]
    pub fn of(
        view: &PackView,
        plan: &Plan,
        (inputs, ends, against): (&ShipmentInputs, SheetEnds<'_>, Vec<Matter>),
        telling: Telling,
    ) -> Self {
        let title = if inputs.title.trim().is_empty() {
            "Untitled".to_owned()
        } else {
            inputs.title.clone()
        };
        let drawn = |step: &PackStep| {
            // Several pieces have layers of their own: each is drawn on its own sheet.
            let slot = step.layer.filter(|_| step.piece.is_none());
            let layer = slot.and_then(|slot| plan.layers.iter().find(|layer| layer.slot == slot));
            match layer.map(|layer| (layer, &layer.make)) {
                Some((_, Make::SavedBox(saved))) => SheetDrawing::of_saved(saved, telling),
                // A case is built in several steps, and drawn where its frame is screwed together.
                Some((_, Make::TravelCase(_))) if step.key != "frame/box" => Vec::new(),
                Some((layer, _)) => SheetDrawing::of_layer(layer, plan.size, (&title, telling))
                    .into_iter()
                    .collect(),
                None => Vec::new(),
            }
        };
        let done = |state: StepState| state == StepState::Done;
        let cuts = view
            .steps
            .iter()
            .filter(|one| one.step.stage == Stage::Cut)
            .filter_map(|one| {
                let name = &one.step.parts.first()?.material_name;
                Some(SheetCuts {
                    material: match &one.sheet {
                        Some(sheet) => format!("{name}, cut already: {sheet}"),
                        None => name.clone(),
                    },
                    parts: one
                        .step
                        .parts
                        .iter()
                        .map(|part| told(part, telling))
                        .collect(),
                    done: done(one.state),
                })
            })
            .collect();
        let steps = view
            .steps
            .iter()
            .filter(|one| one.step.stage != Stage::Cut)
            .map(|one| (one, drawn(&one.step)))
            .map(|(one, drawings)| SheetStep {
                title: match &one.step.piece {
                    Some(piece) => format!("{piece}: {}", one.step.title),
                    None => one.step.title.clone(),
                },
                says: on_paper(&one.step),
                minds: one.step.cautions.join(" "),
                signs: one
                    .step
                    .signs
                    .iter()
                    .map(|sign| sign.name())
                    .collect::<Vec<_>>()
                    .join(", "),
                asks: one
                    .step
                    .look
                    .map(|look| look.asks.to_owned())
                    .unwrap_or_default(),
                tape: torn(&one.step.strips, telling),
                acts: one.step.acts.clone(),
                writes: one
                    .step
                    .types
                    .iter()
                    .filter_map(|field| written(field))
                    .collect(),
                still: one
                    .still
                    .as_ref()
                    .filter(|_| !drawings.is_empty())
                    .map(|still| still.picture.clone()),
                drawings,
                done: done(one.state),
            })
            .collect();
        let mut tools: Vec<_> = view.steps.iter().flat_map(|one| &one.step.tools).collect();
        tools.sort_unstable();
        tools.dedup();
        let names: Vec<&str> = tools.into_iter().map(|tool| tool.name()).collect();
        let outside = plan.tally.outside;
        let sides = telling.sides(&[outside.across, outside.up, outside.through]);
        let drawings = plan
            .layers
            .iter()
            .filter_map(|layer| layer.make.carton())
            .flat_map(Carton::cut_blanks)
            .map(|blank| SheetDrawing::of_blank(blank, &title, telling));
        let sawn = plan
            .layers
            .iter()
            .filter_map(|layer| match &layer.make {
                Make::TravelCase(case) => Some(&case.stock),
                _ => None,
            })
            .flat_map(|stock| SheetDrawing::of_all(stock, telling));
        let drawings = drawings.chain(sawn).collect();
        Self {
            about: about(inputs, telling),
            against,
            to: ends.to.to_vec(),
            from: ends.from.to_vec(),
            comes_to: format!(
                "{sides} outside, {} ± {}, about {:.0} minutes",
                telling.mass(plan.tally.weight.mass),
                telling.mass(plan.tally.weight.plus_minus),
                plan.tally.minutes.as_min()
            ),
            tools: names.join(", "),
            cuts,
            steps,
            drawings,
            title,
        }
    }
}

/// A step in the words of paper.
fn on_paper(step: &PackStep) -> String {
    let acts: Vec<&str> = step.acts.iter().map(Act::on_paper).collect();
    acts.join(" ")
}

/// What is written down on paper where a screen has a field for it.
fn written(field: &str) -> Option<&'static str> {
    Some(match field {
        "choices.wrapped_across" | "parcel.across" => "across",
        "choices.wrapped_up" | "parcel.up" => "up",
        "choices.wrapped_through" | "parcel.through" => "through",
        "parcel.weight" => "weight",
        "choices.case_empty" => "weight of the empty case",
        _ => return None,
    })
}

fn about(inputs: &ShipmentInputs, telling: Telling) -> Vec<String> {
    let promised = inputs.promised.as_deref().map(|day| {
        let told = day
            .parse::<Date>()
            .map_or_else(|_| day.to_owned(), |day| telling.day(day));
        format!("Promised for {told}")
    });
    let number = inputs.order_number();
    let order = (!number.is_empty()).then(|| format!("Order {number}"));
    let note = inputs.order.note.trim();
    let note = (!note.is_empty()).then(|| format!("The buyer wrote: {note}"));
    [inputs.kind_says(telling), order, promised, note]
        .into_iter()
        .flatten()
        .collect()
}

/// A part with its sides, as somebody cuts it.
fn told(part: &Part, telling: Telling) -> String {
    let side = |length: Length| telling.length(length);
    let count = part.count;
    let name = part.id;
    match part.take {
        Take::Piece {
            width_mm,
            height_mm,
            ..
        } => {
            format!("{count} × {} × {}, {name}", side(width_mm), side(height_mm))
        }
        Take::Run {
            length_mm,
            width_mm: Some(width),
            ..
        } => {
            format!(
                "{count} × {} long, {} wide, {name}",
                side(length_mm),
                side(width)
            )
        }
        Take::Run { length_mm, .. } => format!("{count} × {} long, {name}", side(length_mm)),
        Take::Loose { .. } | Take::Each => format!("{count} × {name}"),
    }
}

/// Tape as it is torn, and after it how many metres that comes to.
fn torn(strips: &[Strips], telling: Telling) -> String {
    let each: Vec<String> = strips
        .iter()
        .map(|strip| {
            let filament = if strip.filament { " of filament" } else { "" };
            let tab = if strip.fold > Length::ZERO {
                format!(" with a {} tab", telling.length(strip.fold))
            } else {
                String::new()
            };
            format!(
                "{} × {}{filament}{tab} {}",
                strip.count,
                telling.length(strip.length),
                strip.on
            )
        })
        .collect();
    if each.is_empty() {
        return String::new();
    }
    let all: Length = strips
        .iter()
        .map(|one| one.length * f64::from(one.count))
        .sum();
    format!("{} ({} total)", each.join("; "), telling.run(all))
}
