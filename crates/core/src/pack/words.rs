//! How each thing is laid, in sentences for somebody with tape on one hand: how often, which way, with which piece, how long.

use crate::{
    act::{Act, Does, Pose, Reached, Spot, Thing},
    container::WayIn,
    enclosure::EnclosurePlace,
    house::{Facing, GlassPattern},
    layer::{
        BackFill, Bundle, CLEAR, CardPocket, CardSprings, ContactSheet, CornerBlocks, Cradle,
        EdgeFill, EdgePads, FaceBoards, FacePads, FillGap, FillPlace, FillTurn, Fixing, FoamCollar,
        Folio, GlassTape, Interleaves, Layer, Lining, Make, Marks, OFF_THE_EDGE, OVER_CORNERS,
        PaddingSheets, PaperRolls, RimStrip, Roll, SealedBag, SheetHinges, SlipOns, SpacerLies,
        StretchFilm, WindowSpacer, WrapStrip, holds_a_sheet,
    },
    part::{Part, PartId, StripId, Take},
    piece::PieceSize,
    quantity::{Length, Telling},
    space::{Direction, LayerSlot},
};

pub(super) use crate::text::{capital, in_sentence, number};

/// A hand, across and through, and how far an arm reaches. Source: bench practice.
const HAND: [Length; 2] = [Length::mm(90.0), Length::mm(60.0)];
const ARM: Length = Length::mm(600.0);
/// What several pieces are once they lie together.
pub(super) const BOUND: &str = "the bound pieces";
/// What goes into a tube.
pub(super) const ROLL: &str = "the roll";

/// What the sentences of a step depend on besides its layer.
#[derive(Clone, Copy)]
pub(super) struct Said {
    /// What lengths are told in.
    pub telling: Telling,
    /// How what lies in the box gets in; `None` while nothing is boxed.
    pub way_in: Option<WayIn>,
    /// What goes into the box, as `the wrapped piece`.
    pub what: &'static str,
    /// Of the piece, or of the first of several.
    pub size: PieceSize,
    /// Whether that has no corners.
    pub shaped: bool,
    /// Whether paint stands up from its face, and nothing is over it.
    pub raised: bool,
    /// Whether the cushion of the wrap has bubbles.
    pub bubbles: bool,
    /// What closes over the box, with its article.
    pub lid: &'static str,
    /// How a hand gets to the walls of the box; `None` while nothing is boxed.
    pub within: Option<Reached>,
    /// The board that the piece lies on since before its face boards; `None` if there is none.
    pub behind: Option<PartId>,
}

/// Every kind of strip of a layer.
fn strips_of(layer: &Layer) -> Vec<StripId> {
    layer.strips.iter().map(|strips| strips.on).collect()
}

/// What a layer is made of first.
fn part_of(layer: &Layer) -> PartId {
    layer.parts.first().map_or(PartId::Tape, |part| part.id)
}

/// What it is made of besides: other parts than the first, each once, without the tape.
fn others_of(layer: &Layer) -> Vec<PartId> {
    let tape = |part: &&Part| matches!(part.take, Take::Run { width_mm: None, .. });
    let parts = layer.parts.iter().filter(|part| !tape(part));
    let mut others: Vec<PartId> = parts
        .map(|part| part.id)
        .filter(|id| *id != part_of(layer))
        .collect();
    others.sort_unstable();
    others.dedup();
    others
}

/// Returns how a layer is laid, act by act.
pub(super) fn laying(layer: &Layer, said: &Said) -> Vec<Act> {
    let (part, strips) = (part_of(layer), strips_of(layer));
    match &layer.make {
        Make::GlassTape(tape) => vec![said.glass_tape(tape).taped(&strips)],
        Make::Fixing(fixing) => said.fixing(fixing, &strips),
        Make::WindowSpacer(spacer) => said.spacer(spacer, layer),
        Make::ContactSheet(sheet) => said.contact(sheet, layer),
        Make::Interleaves(sheets) => vec![said.interleaves(sheets, layer)],
        Make::Bundle(bundle) => said.bundle(bundle, layer),
        Make::Folio(folio) => [said.sheet_on_board(folio), vec![covered(&strips, false)]].concat(),
        Make::CardPockets(pocket) => said.pockets(pocket, &strips),
        Make::SlipOns(corners) => vec![said.slip_ons(corners).taped(&strips)],
        Make::FoamCollar(collar) => said.collar(collar, &strips),
        Make::RimStrip(strip) => said.rim(strip, &strips),
        Make::Cradle(cradle) => {
            let mut acts = said.chocks(cradle, &strips);
            acts.push(Said::on_cradle());
            acts
        }
        Make::BackFill(pad) => vec![said.back_fill(pad, part, &strips)],
        Make::FaceBoards(boards) => said.face_boards(boards, layer),
        Make::StretchFilm(film) => vec![said.film(film, layer)],
        Make::NameTag(_) => vec![
            Act::on(
                Does::Write,
                part,
                "Write which piece it is, which side is the face and which edge the top.",
            ),
            Act::tape(
                part,
                &strips,
                format!(
                    "Stick it on the outside of what is wrapped, {}: soon all parcels look alike.",
                    if said.is_roll() { "along the roll" } else { "behind" }
                ),
            )
            .with(Thing::Piece),
        ],
        Make::SealedBag(bag) => vec![said.bag(bag, layer)],
        Make::Roll(roll) => said.roll(roll, layer),
        Make::Wrap(strip) => said.wrap(strip, layer),
        Make::LaidTogether(_) => vec![bound(
            &strips,
            "Bind them with tape twice each way: tight enough that none slides, loose enough that no edge bends.",
        )],
        Make::FacePads(pads) => vec![said.face_pads(pads, part).at(Spot::Both).taped(&strips)],
        Make::EdgePads(pads) => vec![said.edge_pads(pads, layer)],
        Make::CornerBlocks(blocks) => said.corner_blocks(blocks, layer),
        Make::PaperRolls(rolls) => said.paper_rolls(rolls, layer),
        Make::CardSprings(springs) => said.springs(springs, layer),
        Make::Skirt(skirt) => vec![
            Act::on(
                Does::Fold,
                part,
                format!(
                    "Fold the {} strip lengthwise. Lay it around three edges of {}, its ends up: it goes in with it, untaped.",
                    said.sides(&[skirt.length, skirt.width]),
                    said.what
                ),
            )
            .at(Spot::Around)
            .with(Thing::Goods),
        ],
        Make::PaddingSheets(sheets) => vec![said.padding_sheets(sheets, part).taped(&strips)],
        Make::EdgeFill(fill) => FillTurn::ALL
            .into_iter()
            .flat_map(|turn| said.filling(fill, turn, &layer.material_name))
            .collect(),
        Make::Lining(lining) => vec![said.lining(lining, false)],
        // What is done with a container is told by its own acts.
        Make::SlottedBox(_)
        | Make::CutBox(_)
        | Make::SavedBox(_)
        | Make::BoughtBox(_)
        | Make::TravelCase(_)
        | Make::Mailer(_)
        | Make::Sandwich(_)
        | Make::Tube(_) => Vec::new(),
        Make::OuterPaper(_) => vec![
            Act::on(
                Does::Wrap,
                part,
                format!(
                    "Lay the closed box on the {} paper, fold the long sides over it and lap them, then fold in both ends. Tape every open edge.",
                    said.first_sides(layer)
                ),
            )
            .and(others_of(layer))
            .with(Thing::Parcel)
            .taped(&strips),
        ],
        Make::Enclosures(_) => vec![Act::new(
            Does::Lay,
            Thing::Piece,
            "In its sleeve, and never over the face.",
        )],
        Make::Marks(marks) => marking(marks, true),
    }
}

/// Tape around several things, so that they are one.
fn bound(strips: &[StripId], says: &str) -> Act {
    Act::new(Does::Bind, Thing::Piece, says).taped(strips)
}

/// The front board over what lies on the back board: the sheet, or the strips around it.
fn covered(strips: &[StripId], on_strips: bool) -> Act {
    let edges: Vec<StripId> = strips
        .iter()
        .copied()
        .filter(|on| !holds_a_sheet(*on))
        .collect();
    let on = if on_strips { "on the strips" } else { "on" };
    Act::on(
        Does::Tape,
        PartId::FrontBoard,
        format!(
            "Lay the front board {on}, its flutes across those of the back board, and tape the two shut along all four edges."
        ),
    )
    .at(Spot::Face)
    .to(PartId::BackBoard)
    .taped(&edges)
}

/// Returns how the first part of a layer is laid that is laid in two steps.
pub(super) fn beginning(layer: &Layer, said: &Said) -> Vec<Act> {
    match &layer.make {
        Make::Cradle(cradle) => said.chocks(cradle, &strips_of(layer)),
        Make::Folio(folio) => said.sheet_on_board(folio),
        Make::FaceBoards(_) => Said::on_back_board(),
        _ => Vec::new(),
    }
}

/// Returns how the rest of it is laid.
pub(super) fn ending(layer: &Layer, said: &Said) -> Vec<Act> {
    match &layer.make {
        Make::Cradle(_) => vec![Said::on_cradle()],
        Make::Folio(_) => vec![covered(&strips_of(layer), true)],
        _ => laying(layer, said),
    }
}

/// Returns how marks are put on: as labels, or written by hand.
pub(super) fn marking(marks: &Marks, labels: bool) -> Vec<Act> {
    let begin = if labels {
        "Stick"
    } else {
        "Write with a felt pen"
    };
    let each: Vec<&str> = marks.labels.iter().map(|label| label.mark.says()).collect();
    let says = format!("{begin}: {}.", each.join("; "));
    vec![if labels {
        Act::on(Does::Lay, PartId::Label, says).with(Thing::Parcel)
    } else {
        Act::new(Does::Write, Thing::Parcel, says)
    }]
}

/// Returns how something is put in, in a box of some kind.
pub(super) fn enclosing(
    place: EnclosurePlace,
    hard: bool,
    (carriage_room, way_in): (Room, Option<WayIn>),
) -> &'static str {
    match (place, carriage_room) {
        (EnclosurePlace::InPocket, _) => {
            "In the pocket on the outside of the box, which is stuck down all round."
        }
        (_, Room::Core) => "Into the core of the roll, rolled once and not pushed.",
        (_, Room::Behind) => "Flat behind the back board, in its sleeve.",
        (EnclosurePlace::OnBack, Room::OnBoard) => {
            "In its sleeve, taped to the outside of the board behind the piece."
        }
        (EnclosurePlace::OnBack, Room::Box) => {
            "In its sleeve, taped to the back of the frame or the bars, never to the art."
        }
        (EnclosurePlace::UnderLastWrap, Room::Box | Room::OnBoard) => {
            "Flat on the back, in its sleeve and never over the face; the wrap covers it."
        }
        (EnclosurePlace::OnFloor, Room::Box | Room::OnBoard) => match (hard, way_in) {
            (true, Some(WayIn::Edge | WayIn::ShortEdge | WayIn::Halves)) => {
                "On the floor of the box, in a corner, wrapped so that it can't wander."
            }
            (true, _) => "Beside the lower edge, in the gap, wrapped so that it can't wander.",
            (false, Some(WayIn::Edge | WayIn::ShortEdge | WayIn::Halves)) => {
                "Flat on the floor of the box."
            }
            (false, _) => "Flat beside the lower edge.",
        },
        (EnclosurePlace::OnTop, Room::Box | Room::OnBoard) if hard => {
            "At the upper edge, in the gap, wrapped so that it can't wander."
        }
        (EnclosurePlace::OnTop, Room::Box | Room::OnBoard) => {
            "On top: the first thing that is seen when the box is opened."
        }
    }
}

/// Where there is room for what goes in besides.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Room {
    /// Around the piece in its box.
    Box,
    /// The same, for a piece that lies on a board of its own.
    OnBoard,
    /// Behind the boards of a mailer.
    Behind,
    /// Inside a roll.
    Core,
}

/// Returns a count in words, as `twice`.
fn times(count: u32) -> String {
    match count {
        1 => "Once".to_owned(),
        2 => "Twice".to_owned(),
        count => format!("{count} times"),
    }
}

impl Said {
    fn length(&self, length: Length) -> String {
        self.telling.length(length)
    }

    fn sides(&self, sides: &[Length]) -> String {
        self.telling.sides(sides)
    }

    /// The sides of the first part that has two.
    fn first_sides(&self, layer: &Layer) -> String {
        layer
            .parts
            .iter()
            .find_map(|part| self.sides_of(part))
            .unwrap_or_default()
    }

    fn sides_of(&self, part: &Part) -> Option<String> {
        match part.take {
            Take::Piece {
                width_mm,
                height_mm,
                ..
            } => Some(self.sides(&[width_mm, height_mm])),
            Take::Run {
                length_mm,
                width_mm: Some(width),
                ..
            } => Some(self.sides(&[length_mm, width])),
            Take::Run { .. } | Take::Loose { .. } | Take::Each => None,
        }
    }

    fn glass_tape(&self, tape: &GlassTape) -> Act {
        let [down, across, corner_to_corner] = tape.longest().map(|length| self.length(length));
        let laid = match tape.pattern {
            GlassPattern::Star => format!(
                "Lay four strips on the glass: one of {down} down its middle, one of {across} across, two of {corner_to_corner} from corner to corner."
            ),
            GlassPattern::Lattice => {
                let [upright, level] = [tape.upright, tape.level].map(number);
                let lattice = "Lay a lattice on the glass, evenly apart";
                if tape.oval {
                    let longest = self.length(tape.longest()[0].max(tape.longest()[1]));
                    format!(
                        "{lattice}: {upright} strips from top to bottom and {level} from side to side, each as long as the glass is under it, {longest} at most."
                    )
                } else {
                    format!(
                        "{lattice}: {upright} strips of {down} from top to bottom and {level} of {across} from side to side."
                    )
                }
            }
        };
        let clear = self.length(CLEAR);
        let ends = match tape.assumed_moulding {
            Some(moulding) => format!(
                "Each ends {clear} before the frame, which is taken to be {} wide: where it is wider, cut them shorter.",
                self.length(moulding)
            ),
            None => format!(
                "Each ends {clear} before the frame, or before the edge where there is none."
            ),
        };
        Act::new(
            Does::Tape,
            Thing::Piece,
            format!(
                "{laid} {ends} Fold one end of each strip over to a tab, so that the buyer can peel it."
            ),
        )
        .at(Spot::Face)
        .lying(Pose::FaceUp)
    }

    /// How so many slits are spread evenly under a side of the piece, told from the ends of the board's edge, which stands so far beyond it.
    fn spread(&self, edge: &str, count: u32, (side, beyond): (Length, Length)) -> String {
        if count == 1 {
            return format!("one in the middle of {edge}");
        }
        let apart = side / f64::from(count);
        format!(
            "{} along {edge}, their middles {} apart and {} from its ends",
            number(count),
            self.length(apart),
            self.length(beyond + apart / 2.0)
        )
    }

    fn fixing(&self, fixing: &Fixing, strips: &[StripId]) -> Vec<Act> {
        let [slit, from_edge] = [fixing.slit, fixing.slit_in].map(|one| self.length(one));
        let [one, other] = [fixing.width, fixing.height].map(|side| side - fixing.beyond * 2.0);
        let [long, short] = [one.max(other), one.min(other)];
        let along = |edge: &str, count: u32, side: Length| {
            self.spread(&format!("each {edge} edge"), count, (side, fixing.beyond))
        };
        let behind = PartId::BoardBehind;
        let cut = if fixing.around {
            format!(
                "Lay the piece face up in the middle of the board behind, draw around it with a pencil, and lift it off. Cut {} slits of {slit} through the board within the line, {} from it and evenly apart.",
                number(fixing.count()),
                self.length(fixing.under)
            )
        } else {
            format!(
                "Cut slits of {slit} through the board behind, {from_edge} in from its edges: {}; {}.",
                along("long", fixing.along_long_edges, long),
                along("short", fixing.along_short_edges, short)
            )
        };
        vec![
            Act::on(Does::Cut, behind, cut),
            Act::new(
                Does::Slide,
                Thing::Piece,
                "Slide the piece over the edge of the bench, face up, a hand's width and one edge at a time. From below, stick half of each hinge to its back over the place of its slit.",
            )
            .lying(Pose::FaceUp),
            Act::new(
                Does::Lay,
                Thing::Piece,
                "Lay the piece in the middle of the board, face up, and draw each hinge through its slit.",
            )
            .to(behind),
            Act::new(
                Does::Tape,
                Thing::Piece,
                "Slide the board over the edge of the bench, one edge at a time, and stick the other half of each hinge to its back.",
            )
            .to(behind)
            .taped(strips),
        ]
    }

    fn spacer(&self, spacer: &WindowSpacer, layer: &Layer) -> Vec<Act> {
        let strips = &strips_of(layer);
        let [wide, away] = [spacer.strip_width, OFF_THE_EDGE].map(|one| self.length(one));
        let high = if spacer.boards == 1 {
            "one board high".to_owned()
        } else {
            format!(
                "{} boards high, taped on each other first",
                number(spacer.boards)
            )
        };
        let [long, short] = [spacer.long_strip, spacer.short_strip].map(|strip| self.length(strip));
        let (long_strip, short_strip) = (PartId::LongStrip, PartId::ShortStrip);
        match spacer.lies {
            SpacerLies::OnBorder if spacer.margin > Length::ZERO => vec![
                Act::on(
                    Does::Lay,
                    long_strip,
                    format!(
                        "Lay the two {long} strips, {wide} wide and {high}, on the bare border along the long sides: each runs {} past the sheet at both ends.",
                        self.length(spacer.margin)
                    ),
                )
                .at(Spot::Border)
                .lying(Pose::FaceUp)
                .with(Thing::Piece),
                Act::on(
                    Does::Tape,
                    short_strip,
                    format!(
                        "Lay the two {short} strips between them, on the border too. Tape the ends of the long ones to the board, and the short ones to the long ones: no tape on the sheet."
                    ),
                )
                .at(Spot::Border)
                .and([long_strip])
                .to(PartId::BackBoard)
                .keeping_off(spacer.stands_off)
                .taped(strips),
            ],
            SpacerLies::OnBorder => vec![
                Act::on(
                    Does::Lay,
                    long_strip,
                    format!(
                        "Lay the strips, {wide} wide and {high}, on the bare border: two of {long}, and two of {short} between them."
                    ),
                )
                .at(Spot::Border)
                .lying(Pose::FaceUp)
                .and([short_strip]),
                Act::on(
                    Does::Tape,
                    long_strip,
                    "Tape their ends over the edges of the piece, never on the picture.",
                )
                .and([short_strip])
                .keeping_off(spacer.stands_off)
                .with(Thing::Piece)
                .taped(strips),
            ],
            SpacerLies::OutsideSheet => vec![
                Act::on(
                    Does::Lay,
                    short_strip,
                    format!(
                        "Lay the strips, {wide} wide and {high}, on the back board around the sheet, {away} away from it: two of {short} beside its short edges, two of {long} along its long ones, past their ends."
                    ),
                )
                .at(Spot::Beside)
                .lying(Pose::FaceUp)
                .and([long_strip]),
                Act::on(
                    Does::Tape,
                    short_strip,
                    "Tape both ends of each to the board, none to the sheet.",
                )
                .and([long_strip])
                .keeping_off(spacer.stands_off)
                .to(PartId::BackBoard)
                .taped(strips),
            ],
            SpacerLies::Beside => {
                let own_board = layer.parts.iter().any(|part| part.id == PartId::BoardBehind);
                let laid = own_board.then(|| {
                    Act::new(
                        Does::Lay,
                        Thing::Piece,
                        "Lay the piece face up in the middle of the board behind it.",
                    )
                    .lying(Pose::FaceUp)
                    .to(PartId::BoardBehind)
                });
                let bars = [
                Act::on(
                    Does::Tape,
                    PartId::ShortBar,
                    format!(
                        "Stand the bars of foam around it, {away} away: two of {short} beside its short edges, two of {long} along its long ones, past their ends. Tape both ends of each to the board, none to the piece."
                    ),
                )
                .at(Spot::Beside)
                .and([PartId::LongBar])
                .to(PartId::BoardBehind)
                .taped(strips),
                Act::on(
                    Does::Look,
                    PartId::ShortBar,
                    format!(
                        "They stand {} higher than its face: the board before it lies on them.",
                        self.length(spacer.stands_off)
                    ),
                )
                .keeping_off(spacer.stands_off),
                ];
                laid.into_iter().chain(bars).collect()
            }
        }
    }

    fn collar(&self, collar: &FoamCollar, strips: &[StripId]) -> Vec<Act> {
        vec![
            Act::on(
                Does::Stand,
                PartId::BarBeside,
                format!(
                    "Stand the bars of foam around the frame, {} high: the two of {} beside it, the two of {} above and below, over their ends.",
                    self.length(collar.height),
                    self.length(collar.short_bar),
                    self.length(collar.long_bar)
                ),
            )
            .at(Spot::Beside)
            .lying(Pose::FaceUp)
            .and([PartId::UpperAndLowerBar]),
            Act::tape(
                PartId::BarBeside,
                strips,
                "Tape them to each other at the corners, foam to foam: no tape on the frame.",
            )
            .to(PartId::UpperAndLowerBar),
        ]
    }

    fn rim(&self, strip: &RimStrip, strips: &[StripId]) -> Vec<Act> {
        let size = self.sides(&[strip.length, strip.height]);
        let bent = match strip.count {
            1 => format!(
                "Bend the {size} strip of foam around the rim, on its edge, until its ends meet."
            ),
            count => format!(
                "Bend {} strips of foam, {size}, around the rim, on their edges, end to end.",
                number(count)
            ),
        };
        vec![
            Act::on(Does::Stand, PartId::RimStrip, bent)
                .at(Spot::Edges)
                .with(Thing::Piece),
            Act::tape(
                PartId::RimStrip,
                strips,
                "Tape end to end, then take a band of tape once round the foam: no tape on the piece.",
            )
            .with(Thing::Piece),
        ]
    }

    fn chocks(&self, cradle: &Cradle, strips: &[StripId]) -> Vec<Act> {
        let count = u32::try_from(cradle.chocks.len()).unwrap_or(u32::MAX);
        let (board, chock) = (PartId::CradleBoard, PartId::Chock);
        vec![
            Act::on(
                Does::Write,
                board,
                format!(
                    "Lay the piece face up on the {} board, {} from its left edge and {} from the lower one. Draw round it with a pencil, and take it off.",
                    self.sides(&[cradle.width, cradle.height]),
                    self.length(cradle.left),
                    self.length(cradle.below)
                ),
            )
            .with(Thing::Piece),
            Act::on(
                Does::Stand,
                chock,
                format!(
                    "Set the {} chocks, {} high, along the line from outside, where the drawing shows them.",
                    number(count),
                    self.length(cradle.chock_height)
                ),
            )
            .at(Spot::Beside)
            .to(board),
            Act::tape(
                chock,
                strips,
                "Tape each to the board with two strips on its outer side. A drop of hot glue under it holds better: let it cool before anything lies there.",
            )
            .to(board),
        ]
    }

    fn on_cradle() -> Act {
        let between = "Lay the piece between the chocks, face up, until it touches each of them.";
        Act::new(Does::Lay, Thing::Piece, between)
            .lying(Pose::FaceUp)
            .to(PartId::CradleBoard)
    }

    /// A sheet whose face nothing may touch on its back board, held from behind.
    fn sheet_on_hinges(&self, folio: &Folio, hinges: SheetHinges) -> Vec<Act> {
        let [slit, from_edge, slack] =
            [hinges.slit, hinges.slit_in, hinges.slack].map(|one| self.length(one));
        let back = PartId::BackBoard;
        vec![
            Act::on(
                Does::Cut,
                back,
                format!(
                    "Cut slits of {slit} through the back board, {from_edge} in from its upper and lower edge: {}.",
                    self.spread(
                        "each of the two",
                        hinges.along_upper_edge,
                        (folio.width - folio.margin * 2.0, folio.margin)
                    )
                ),
            ),
            Act::new(
                Does::Slide,
                Thing::Piece,
                "Slide the sheet over the edge of the bench, face up, a hand's width of its upper edge, then of its lower one. From below, stick one end of each hinge to its back over the place of its slit.",
            )
            .lying(Pose::FaceUp),
            Act::new(
                Does::Lay,
                Thing::Piece,
                format!(
                    "Lay the sheet in the middle of the back board, face up, {} from its edges, and draw each hinge through its slit.",
                    self.length(folio.margin)
                ),
            )
            .to(back),
            Act::new(
                Does::Tape,
                Thing::Piece,
                format!(
                    "Slide the board over the edge of the bench and stick the other end of each hinge to its back: those above without slack, those below with {slack} of it."
                ),
            )
            .to(back)
            .taped(&[StripId::ThroughTheBackBoard]),
        ]
    }

    fn sheet_on_board(&self, folio: &Folio) -> Vec<Act> {
        if let Some(hinges) = folio.hinges {
            return self.sheet_on_hinges(folio, hinges);
        }
        vec![
            Act::on(
                Does::Fold,
                PartId::PaperForPockets,
                format!(
                    "Fold {} paper corners from squares of {}, and push one over each corner of the sheet.",
                    number(4),
                    self.length(folio.pocket_square)
                ),
            )
            .at(Spot::Corners)
            .lying(Pose::FaceUp)
            .with(Thing::Piece),
            Act::new(
                Does::Tape,
                Thing::Piece,
                format!(
                    "Lay the sheet in the middle of the back board, {} from its edges, and tape the paper corners down: no tape touches the sheet.",
                    self.length(folio.margin)
                ),
            )
            .to(PartId::BackBoard)
            .taped(&[OVER_CORNERS]),
        ]
    }

    fn contact(&self, sheet: &ContactSheet, layer: &Layer) -> Vec<Act> {
        let across = sheet.across;
        let strip = |width: Length| self.sides(&[sheet.strip_length, width]);
        let (whole, narrow) = (strip(across.whole_width), strip(across.narrow_width));
        let strips = |count: u32| match count {
            1 => "one strip".to_owned(),
            count => format!("{} strips", number(count)),
        };
        let sheets = match (sheet.sheets, across.whole, across.narrow) {
            (Some(1), ..) | (None, 0, _) => {
                format!("Lay the {} sheet over the face", self.first_sides(layer))
            }
            (Some(count), ..) => format!(
                "Lay {} sheets of {} over the face, side by side and lapping away from its middle",
                number(count),
                self.first_sides(layer)
            ),
            (None, count, 1) => format!(
                "Lay {} of {whole} over the face from one edge on, the one of {narrow} beside it, each lapping the one before",
                strips(count)
            ),
            (None, count, _) => format!(
                "Lay {} of {whole} over the middle of the face, one of {narrow} on each side, lapping the one before",
                strips(count)
            ),
        };
        let part = part_of(layer);
        let folded = format!(
            "{sheets}, fold it over {} onto the back, and {}.",
            if self.shaped {
                "the rim in pleats, all round,"
            } else {
                "all four edges"
            },
            if self.raised {
                "leave it slack over the paint: pulled tight, it would press on what stands up"
            } else {
                "pull it until no wrinkle is left"
            }
        );
        vec![
            Act::on(Does::Lay, part, folded)
                .at(Spot::FaceFolded)
                .lying(Pose::FaceUp)
                .and(others_of(layer))
                .with(Thing::Piece),
            Act::tape(
                part,
                &strips_of(layer),
                "Tape it on the back only, one end of each strip folded over to a tab.",
            )
            .lying(Pose::FaceDown)
            .and(others_of(layer))
            .with(Thing::Piece),
        ]
    }

    fn interleaves(&self, sheets: &Interleaves, layer: &Layer) -> Act {
        let size = self.sides(&[sheets.width, sheets.height]);
        let widths = sheets.strips;
        let joined = (widths > 1).then(|| {
            format!(
                "Each is {} widths side by side, lapping by two fingers.",
                number(widths)
            )
        });
        let lay = match sheets.count {
            0..=2 => format!("Lay one {size} sheet on the face and one behind."),
            count => format!(
                "Lay a {size} sheet under the first, one over each, {} in all.",
                number(count)
            ),
        };
        let says: Vec<String> = std::iter::once(lay).chain(joined).collect();
        Act::on(Does::Lay, part_of(layer), says.join(" "))
            .at(Spot::Both)
            .and(others_of(layer))
            .with(Thing::Piece)
    }

    /// Tells whether a roll is packed.
    fn is_roll(&self) -> bool {
        self.what == ROLL
    }

    fn bundle(&self, bundle: &Bundle, layer: &Layer) -> Vec<Act> {
        let how = match bundle.facing {
            Facing::Inward => "Lay the next face down on it with a board between",
            Facing::BacksTogether => {
                "Lay them in pairs, back to back with a sheet between, a board between pairs"
            }
        };
        let stacks = bundle.across * bundle.up;
        let piles = if stacks == 1 {
            format!("one pile of {}", number(bundle.deep))
        } else {
            format!(
                "{} piles side by side, {} across and {} up, each of at most {}",
                number(stacks),
                number(bundle.across),
                number(bundle.up),
                number(bundle.deep)
            )
        };
        let first = format!("Make {piles}, with the first piece face up.");
        let mut acts = vec![Act::new(Does::Lay, Thing::Piece, first)];
        if bundle.deep > 1 {
            let says = format!("{how}, until all {} lie there.", number(bundle.count));
            let between = std::iter::once(part_of(layer)).chain(others_of(layer));
            // Where nothing lies between them, the layer is its tape alone.
            let between = between.filter(|id| *id != PartId::Tape);
            acts.push(Act::new(Does::Lay, Thing::Piece, says).and(between));
        }
        if stacks > 1 {
            acts.push(Act::on(
                Does::Stand,
                PartId::BoardBetween,
                "Stand a board between any two piles.",
            ));
        }
        acts.push(bound(
            &strips_of(layer),
            "Bind them with tape once each way, so that none slides.",
        ));
        acts
    }

    fn pockets(&self, pocket: &CardPocket, strips: &[StripId]) -> Vec<Act> {
        let [across, up] = [self.size.width, self.size.height].map(|side| pocket.strip_along(side));
        let part = PartId::CornerPocket;
        vec![
            Act::on(
                Does::Fold,
                part,
                format!(
                    "Fold four pockets with a {} leg, the tab outside, and push one over each corner, the single face in front.",
                    self.length(pocket.leg)
                ),
            )
            .at(Spot::Corners)
            .lying(Pose::FaceDown)
            .with(Thing::Piece),
            Act::tape(
                part,
                strips,
                format!(
                    "Tape them to each other across the back, along its four edges: two strips of {}, two of {}.",
                    self.length(across),
                    self.length(up)
                ),
            )
            .lying(Pose::FaceDown)
            .with(Thing::Piece),
        ]
    }

    fn slip_ons(&self, corners: &SlipOns) -> Act {
        let says = format!(
            "Push {} corners on, one over each corner, and tape them to each other across the back with two tabs each.",
            number(corners.count)
        );
        Act::on(Does::Push, PartId::Corner, says)
            .at(Spot::Corners)
            .lying(Pose::FaceDown)
            .with(Thing::Piece)
    }

    fn back_fill(&self, pad: &BackFill, part: PartId, strips: &[StripId]) -> Act {
        let says = format!(
            "Lay the {} pad into the hollow behind, between the bars: it stays below them and touches the canvas nowhere.",
            self.sides(&[pad.width, pad.height, pad.thickness])
        );
        let says = if strips.is_empty() {
            says
        } else {
            format!("{says} Tape it to the bars at its four sides.")
        };
        Act::on(Does::Lay, part, says)
            .at(Spot::Back)
            .lying(Pose::FaceDown)
            .with(Thing::Piece)
            .taped(strips)
    }

    /// The piece on its back board, before foam stands around it there.
    fn on_back_board() -> Vec<Act> {
        let back = PartId::BackBoard;
        vec![
            Act::on(Does::Clean, back, "Wipe the board clean of dust."),
            Act::new(
                Does::Lay,
                Thing::Piece,
                "Lay it face up in the middle of its back board.",
            )
            .lying(Pose::FaceUp)
            .to(back),
        ]
    }

    fn face_boards(&self, boards: &FaceBoards, layer: &Layer) -> Vec<Act> {
        let size = self.sides(&[boards.width, boards.height]);
        let lay = match (boards.behind, boards.back) {
            (true, Some(back)) => format!(
                "Lay the {size} board before the face and the {} board behind.",
                self.sides(&[back.width, back.height])
            ),
            (true, None) => format!("Lay one {size} board before the face and one behind."),
            (false, _) if self.behind == Some(PartId::BoardBehind) => {
                format!("Lay the {size} board on the bars.")
            }
            (false, _) => format!("Lay the {size} board before the face."),
        };
        let taped = layer.parts.iter().any(|part| part.id == PartId::Tape);
        let (front, back) = (part_of(layer), PartId::BackBoard);
        let has_back = layer.parts.iter().any(|part| part.id == back);
        let other = if has_back { back } else { front };
        let (bands, edges): (Vec<StripId>, Vec<StripId>) =
            strips_of(layer).into_iter().partition(|on| {
                matches!(
                    on,
                    StripId::OnceAroundSideToSide | StripId::OnceAroundTopToBottom
                )
            });
        let on_back_board = self.behind == Some(back);
        let mut acts = if on_back_board {
            let lay = format!("Lay the {size} board before the face, on the foam.");
            vec![
                Act::on(Does::Clean, front, "Wipe the board clean of dust."),
                Act::on(Does::Lay, front, lay).at(Spot::Face),
            ]
        } else {
            let at = if boards.behind {
                Spot::Both
            } else {
                Spot::Face
            };
            vec![
                Act::on(Does::Clean, front, "Wipe the boards clean of dust.").to(other),
                Act::on(Does::Lay, front, lay)
                    .at(at)
                    .and(has_back.then_some(back)),
            ]
        };
        acts.push(if taped {
            Act::tape(
                front,
                &edges,
                "Slide the work over the edge of the bench and tape the boards there, over each edge in turn: don't lift it.",
            )
            .spanning(layer.envelope.through)
            .with(match self.behind {
                Some(behind) => Thing::Part(behind),
                None if boards.behind => Thing::Part(other),
                None => Thing::Piece,
            })
        } else {
            Act::on(Does::Hold, front, "Hold them there: the film binds them.").to(other)
        });
        if boards.banded {
            acts.push(
                Act::on(
                    Does::Bind,
                    front,
                    "Take a band of tape once around both boards each way: it holds the old frame together, and touches board alone.",
                )
                .to(other)
                .taped(&bands),
            );
        }
        acts
    }

    fn film(&self, film: &StretchFilm, layer: &Layer) -> Act {
        let around = match layer.slot {
            LayerSlot::BoxFilm | LayerSlot::BoxWrap => "the inner box",
            LayerSlot::WrapFilm => "the wrapped piece",
            _ => "the boards",
        };
        let says = format!(
            "{} round {around}, top to bottom, stretched a little; rub its end down.",
            times(film.turns)
        );
        Act::on(Does::Wrap, part_of(layer), says)
            .at(Spot::Around)
            .taped(&strips_of(layer))
    }

    fn bag(&self, bag: &SealedBag, layer: &Layer) -> Act {
        let says = format!(
            "Slide it into the {} bag with {}, press the air out, and seal the open side.",
            self.sides(&[bag.width, bag.height]),
            match bag.sachets {
                1 => "one sachet".to_owned(),
                count => format!("{} sachets", number(count)),
            }
        );
        Act::on(Does::Slide, part_of(layer), says)
            .at(Spot::Around)
            .and(others_of(layer))
            .taped(&strips_of(layer))
    }

    fn roll(&self, roll: &Roll, layer: &Layer) -> Vec<Act> {
        let core = self.length(roll.inner);
        let part = part_of(layer);
        let rolled = if roll.cored {
            format!("Roll it face out onto the {core} core, with its sheet, without pulling.")
        } else {
            format!("Roll it face out, with its sheet, {core} wide inside, without pulling.")
        };
        let closed = format!(
            "It comes to {} across. Close a band of paper around each end, taped to itself with a tab: no tape on the art.",
            self.length(roll.outer)
        );
        vec![
            match roll.cored {
                true => Act::new(Does::Roll, Thing::Piece, rolled).to(part),
                false => Act::new(Does::Roll, Thing::Piece, rolled),
            },
            Act::new(Does::Tape, Thing::Piece, closed).taped(&strips_of(layer)),
        ]
    }

    fn wrap(&self, strip: &WrapStrip, layer: &Layer) -> Vec<Act> {
        let way = match strip.direction {
            _ if self.is_roll() => "around the roll",
            Direction::Up => "top to bottom",
            Direction::Across => "side to side",
        };
        let size = self.first_sides(layer);
        let with = if strip.strips == 1 {
            format!("with the {size} strip")
        } else {
            format!(
                "with {} strips of {size} side by side, each lapping the one before",
                number(strip.strips)
            )
        };
        let part = part_of(layer);
        let inward = if layer.slot == LayerSlot::BoxWrap {
            "Flat side toward the box, bubbles out."
        } else {
            "Flat side toward the art, bubbles out."
        };
        let around = format!("{} round, {way}, {with}.", times(strip.turns));
        let around = if self.bubbles {
            format!("{inward} {around}")
        } else {
            around
        };
        let closed = match layer.slot {
            LayerSlot::InsetWrap => {
                "It lies between the rolled ends of the wrap under it: tape the seam behind, with a tab."
            }
            LayerSlot::BoxWrap => {
                "Tape the seam on the side of the back, roll both open ends in toward the inner box, and tape each down with a tab."
            }
            _ => {
                "Tape the seam behind, roll both open ends in toward the piece, and tape each down with a tab."
            }
        };
        vec![
            Act::on(Does::Wrap, part, around)
                .at(Spot::Around)
                .with(Thing::Goods),
            Act::tape(part, &strips_of(layer), closed).with(Thing::Goods),
        ]
    }

    fn face_pads(&self, pads: &FacePads, part: PartId) -> Act {
        let size = self.sides(&[pads.width, pads.height, pads.thickness]);
        let says = if pads.pads == 1 {
            format!("Lay one {size} pad over the face and one behind.")
        } else {
            format!(
                "Lay {} pads of {size} over the face, one at each corner, and as many behind.",
                number(pads.pads)
            )
        };
        Act::on(Does::Lay, part, says).with(Thing::Goods)
    }

    fn edge_pads(&self, pads: &EdgePads, layer: &Layer) -> Act {
        let strips: Vec<String> = layer
            .parts
            .iter()
            .filter_map(|part| {
                Some(format!(
                    "{} of {}",
                    number(part.count),
                    self.sides_of(part)?
                ))
            })
            .collect();
        let says = format!(
            "Set them along the edges, {} thick: {}. Tape each to the next one, end to end.",
            self.length(pads.thickness),
            strips.join(", ")
        );
        Act::tape(part_of(layer), &strips_of(layer), says)
            .at(Spot::Edges)
            .and(others_of(layer))
            .with(Thing::Goods)
    }

    fn corner_blocks(&self, blocks: &CornerBlocks, layer: &Layer) -> Vec<Act> {
        let cut_out = (blocks.cut_out > Length::ZERO).then(|| {
            format!(
                "Cut {} by {0} out of the inner corner of each block, so that it holds the sides of the frame and nothing touches what stands up.",
                self.length(blocks.cut_out)
            )
        });
        let set = format!(
            "Set {} blocks, one on each corner: a long bar of {} along one edge, a short one of {} along the other. Tape both to each other.",
            number(blocks.count),
            self.length(blocks.long_bar),
            self.length(blocks.short_bar)
        );
        let (long, short) = (part_of(layer), PartId::ShortBar);
        let cut_out = cut_out.map(|says| Act::on(Does::Cut, long, says).to(short));
        let set = Act::tape(long, &strips_of(layer), set)
            .at(Spot::Corners)
            .and([short])
            .with(Thing::Goods);
        cut_out.into_iter().chain([set]).collect()
    }

    fn slides(&self) -> bool {
        matches!(
            self.way_in,
            Some(WayIn::Edge | WayIn::ShortEdge | WayIn::Halves)
        )
    }

    fn paper_rolls(&self, rolls: &PaperRolls, layer: &Layer) -> Vec<Act> {
        let sheets = if rolls.sheets == 1 {
            "one sheet".to_owned()
        } else {
            format!("{} sheets", number(rolls.sheets))
        };
        let rows = match rolls.rows {
            1 => String::new(),
            rows => format!(", in {} rows beside each other", number(rows)),
        };
        let part = part_of(layer);
        let rolled = format!(
            "Roll {sheets} of {} loosely for each, {} across: {} rolls in all.",
            self.sides(&[rolls.sheet_length, rolls.sheet_cut]),
            self.length(rolls.loose),
            number(rolls.count())
        );
        let slid = format!(
            "Tape them along the four edges of {}{rows}, with a tab at both ends of each: they slide in with it.",
            self.what
        );
        let laid = format!("Lay them along the four edges in the box{rows}.");
        vec![
            Act::on(Does::Roll, part, rolled),
            self.along_edges(layer, [slid, laid]),
        ]
    }

    /// What goes along the edges: taped to what slides in, or laid in the box.
    fn along_edges(&self, layer: &Layer, [slid, laid]: [String; 2]) -> Act {
        let (part, strips) = (part_of(layer), strips_of(layer));
        if self.slides() {
            Act::tape(part, &strips, slid)
                .at(Spot::Edges)
                .with(Thing::Goods)
        } else {
            Act::on(Does::Lay, part, laid).taped(&strips)
        }
    }

    fn springs(&self, springs: &CardSprings, layer: &Layer) -> Vec<Act> {
        let folded = format!(
            "Fold the four strips in zigzag, a crease every {}: {} legs for the sides, {} for top and bottom.",
            self.length(springs.leg),
            springs.upright.legs,
            springs.level.legs
        );
        let slid = format!(
            "Tape one along each edge of {}, with a tab at both ends: they slide in with it.",
            self.what
        );
        vec![
            Act::on(Does::Fold, part_of(layer), folded),
            self.along_edges(
                layer,
                [slid, "Set one along each edge in the box.".to_owned()],
            ),
        ]
    }

    fn padding_sheets(&self, sheets: &PaddingSheets, part: PartId) -> Act {
        let size = self.sides(&[sheets.width, sheets.height]);
        let all = if sheets.count == 1 {
            format!("the {size} sheet")
        } else {
            format!("{} sheets of {size}", number(sheets.count))
        };
        match self.way_in {
            Some(WayIn::Face) => Act::on(
                Does::Lay,
                part,
                format!("Lay {all} flat on the floor of the box: the piece lies on them."),
            ),
            Some(WayIn::Blank) => Act::on(
                Does::Lay,
                part,
                format!("Lay {all} flat on its back, before the lids close."),
            )
            .with(Thing::Goods),
            _ => Act::on(
                Does::Tape,
                part,
                format!(
                    "Lay {all} flat on the back of {} and tape them at their four sides: nothing can be pushed in behind later.",
                    self.what
                ),
            )
            .at(Spot::Back)
            .with(Thing::Goods),
        }
    }

    /// Returns how the fill of a turn is laid.
    pub(super) fn filling(&self, fill: &EdgeFill, turn: FillTurn, stuff: &str) -> Vec<Act> {
        fill.laid(turn)
            .map(|place| {
                let says = self.one_fill(fill, place, &in_sentence(stuff));
                let filled = Act::on(Does::Fill, turn.part(), says).with(Thing::Goods);
                let filled = filled
                    .taped(&fill.taped_at(place))
                    .filling(place.between, place.pieces.is_none());
                match (turn, place.gap) {
                    (FillTurn::OnPiece, FillGap::Behind) => filled.at(Spot::Back),
                    (FillTurn::OnPiece, FillGap::Front) => filled.at(Spot::Face),
                    (FillTurn::OnPiece, _) => filled.at(Spot::Edges),
                    // What is poured on a floor needs no hand there.
                    (FillTurn::Before, FillGap::Behind) if !self.is_beyond_a_hand() => {
                        filled.reaching(self.within)
                    }
                    _ => filled,
                }
            })
            .collect()
    }

    /// Tells whether no hand gets to the floor of a box: it is too deep, or too narrow. Source: bench practice.
    fn is_beyond_a_hand(&self) -> bool {
        self.within.is_some_and(|reached| {
            let [one, other] = reached.mouth;
            let [across, through] = HAND;
            reached.deep > ARM || one.max(other) < across || one.min(other) < through
        })
    }

    fn one_fill(&self, fill: &EdgeFill, place: &FillPlace, stuff: &str) -> String {
        let amount = match place.pieces {
            Some(1) => format!("One of the {stuff}"),
            Some(count) => format!("{count} of the {stuff}"),
            None => format!("{} of {stuff}", self.telling.poured(place.loose)),
        };
        // Corner blocks may stand without any clearance beside them.
        let thick = if place.thick > Length::ZERO {
            format!("{} thick before it settles", self.length(place.thick))
        } else {
            "between the corner blocks".to_owned()
        };
        let what = self.what;
        match (place.gap, place.turn) {
            (FillGap::Floor, _) => format!("{amount} on the floor, {thick}."),
            (FillGap::Walls, _) => {
                // It stands on one of the others.
                let edges = if fill.way_in == WayIn::Edge {
                    "short"
                } else {
                    "long"
                };
                format!(
                    "{amount} as two flat pads, {thick}. Tape one along each {edges} edge of {what}, at both its ends: what is loose beside it drops down."
                )
            }
            (FillGap::Front, FillTurn::Before | FillTurn::OnPiece) => format!(
                "{amount} as a flat pad, {thick}, taped to the front of {what} at its four sides."
            ),
            (FillGap::Front, FillTurn::After) => {
                format!("{amount} spread flat over the front, {thick}.")
            }
            (FillGap::Behind, FillTurn::Before) if self.is_beyond_a_hand() => {
                format!("Drop {amount} onto the floor, and level it with a strip of card, {thick}.")
            }
            (FillGap::Behind, FillTurn::Before) => {
                format!("{amount} spread flat on the floor, {thick}: it lies on its back there.")
            }
            (FillGap::Behind, FillTurn::OnPiece) => format!(
                "{amount} as a flat pad as large as the back, {thick}. Tape it to the back of {what} at its four sides: nothing can be pushed in behind later."
            ),
            (FillGap::Behind, FillTurn::After) => {
                format!("{amount} spread flat over the back, {thick}.")
            }
            (FillGap::Edges, _) if fill.way_in == WayIn::Blank => format!(
                "{amount} in all around it, {thick}: first at both ends, fold the ends up against it and tuck them in; then along both long sides, and fold the walls up."
            ),
            (FillGap::Edges, _) => {
                format!("{amount} along all four edges, {thick}, pushed down to the floor.")
            }
            (FillGap::Top, _) if fill.way_in == WayIn::Halves => {
                format!("{amount} into the closed end of {}, {thick}.", self.lid)
            }
            (FillGap::Top, _) => format!("{amount} on top, {thick}: {} press it down.", self.lid),
            (FillGap::Around, _) => {
                format!("{amount} around the roll from both ends, until it can't rattle.")
            }
        }
    }

    /// Returns how the pieces of a lining are set: those that lie there before the piece, or those that come last.
    pub(super) fn lining(&self, lining: &Lining, last: bool) -> Act {
        let sides: Vec<&str> = lining
            .pieces
            .iter()
            .filter(|piece| piece.last == last)
            .map(|piece| match piece.side {
                crate::space::BoxSide::Front => "front",
                crate::space::BoxSide::Back => "back",
                crate::space::BoxSide::Left => "left",
                crate::space::BoxSide::Right => "right",
                crate::space::BoxSide::Top => "top",
                crate::space::BoxSide::Bottom => "bottom",
            })
            .collect();
        let sides = sides.join(", ");
        if last {
            Act::on(
                Does::Lay,
                PartId::LiningToSetLast,
                format!("Set the rest of the lining: {sides}. It holds by its own fit."),
            )
        } else {
            Act::on(
                Does::Lay,
                PartId::Lining,
                format!(
                    "Set the lining against these sides, the large ones first: {sides}. It holds by its own fit."
                ),
            )
        }
    }
}
