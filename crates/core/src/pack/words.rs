//! How each thing is laid, in sentences for somebody with tape on one hand: how often, which way, with which piece, how long.

use crate::{
    container::WayIn,
    enclosure::EnclosurePlace,
    house::{Facing, GlassPattern},
    layer::{
        BackFill, Bundle, CardPocket, CardSprings, ContactSheet, CornerBlocks, Cradle, EdgeFill,
        EdgePads, FaceBoards, FacePads, FillGap, FillPlace, FillTurn, FoamCollar, Folio, GlassTape,
        Interleaves, Layer, Lining, Make, Marks, OFF_THE_EDGE, PaddingSheets, PaperRolls, RimStrip,
        Roll, SealedBag, SlipOns, SpacerLies, StretchFilm, WindowSpacer, WrapStrip,
    },
    part::{Part, PartId, Take},
    piece::PieceSize,
    quantity::{Length, Telling},
    space::{Direction, LayerSlot},
};

pub(super) use crate::text::{capital, in_sentence, number};

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
    /// Whether the cushion of the wrap has bubbles.
    pub bubbles: bool,
    /// What closes over the box, with its article.
    pub lid: &'static str,
}

/// Returns how a layer is laid.
pub(super) fn laying(layer: &Layer, said: &Said) -> Vec<String> {
    match &layer.make {
        Make::GlassTape(tape) => said.glass_tape(tape),
        Make::WindowSpacer(spacer) => said.spacer(spacer),
        Make::ContactSheet(sheet) => said.contact(sheet, layer),
        Make::Interleaves(sheets) => said.interleaves(sheets),
        Make::Bundle(bundle) => said.bundle(bundle),
        Make::Folio(folio) => said.folio(folio),
        Make::CardPockets(pocket) => said.pockets(pocket),
        Make::SlipOns(corners) => said.slip_ons(corners),
        Make::FoamCollar(collar) => said.collar(collar),
        Make::RimStrip(strip) => said.rim(strip),
        Make::Cradle(cradle) => [said.chocks(cradle), said.cradle(layer)].concat(),
        Make::BackFill(pad) => said.back_fill(pad),
        Make::FaceBoards(boards) => said.face_boards(boards, layer),
        Make::StretchFilm(film) => said.film(film, layer),
        Make::NameTag(_) => vec![
            "Write which piece it is, which side is the face and which edge the top.".to_owned(),
            format!(
                "Stick it on the outside of what is wrapped, {}: soon all parcels look alike.",
                if said.is_roll() { "along the roll" } else { "behind" }
            ),
        ],
        Make::SealedBag(bag) => said.bag(bag),
        Make::Roll(roll) => said.roll(roll),
        Make::Wrap(strip) => said.wrap(strip, layer),
        Make::LaidTogether(_) => vec![
            "Bind them with tape twice each way: tight enough that none slides, loose enough that no edge bends.".to_owned(),
        ],
        Make::FacePads(pads) => said.face_pads(pads),
        Make::EdgePads(pads) => said.edge_pads(pads, layer),
        Make::CornerBlocks(blocks) => said.corner_blocks(blocks),
        Make::PaperRolls(rolls) => said.paper_rolls(rolls),
        Make::CardSprings(springs) => said.springs(springs),
        Make::Skirt(skirt) => vec![format!(
            "Fold the {} strip lengthwise. Lay it around three edges of {}, its ends up: it goes in with it, untaped.",
            said.sides(&[skirt.length, skirt.width]),
            said.what
        )],
        Make::PaddingSheets(sheets) => said.padding_sheets(sheets),
        Make::EdgeFill(fill) => FillTurn::ALL
            .into_iter()
            .flat_map(|turn| said.filling(fill, turn, &layer.material_name))
            .collect(),
        Make::Lining(lining) => said.lining(lining, false),
        // What is done with a container is told by its acts.
        Make::SlottedBox(_)
        | Make::CutBox(_)
        | Make::SavedBox(_)
        | Make::BoughtBox(_)
        | Make::TravelCase(_)
        | Make::Mailer(_)
        | Make::Sandwich(_)
        | Make::Tube(_) => Vec::new(),
        Make::OuterPaper(_) => vec![format!(
            "Lay the closed box on the {} paper, fold the long sides over it and lap them, then fold in both ends. Tape every open edge.",
            said.first_sides(layer)
        )],
        Make::Enclosures(_) => vec!["In its sleeve, and never over the face.".to_owned()],
        Make::Marks(marks) => marking(marks, true),
    }
}

/// Returns how the first part of a layer is laid that is laid in two steps.
pub(super) fn beginning(layer: &Layer, said: &Said) -> Vec<String> {
    match &layer.make {
        Make::Cradle(cradle) => said.chocks(cradle),
        Make::Folio(folio) => said.sheet_on_board(folio),
        _ => Vec::new(),
    }
}

/// Returns how the rest of it is laid.
pub(super) fn ending(layer: &Layer, said: &Said) -> Vec<String> {
    match &layer.make {
        Make::Cradle(_) => said.cradle(layer),
        Make::Folio(_) => vec![
            "Lay the front board on the strips, its flutes across those of the back board, and tape the two shut along all four edges.".to_owned(),
        ],
        _ => laying(layer, said),
    }
}

/// Returns how marks are put on: as labels, or written by hand.
pub(super) fn marking(marks: &Marks, labels: bool) -> Vec<String> {
    let begin = if labels {
        "Stick"
    } else {
        "Write with a felt pen"
    };
    let each: Vec<&str> = marks.labels.iter().map(|label| label.mark.says()).collect();
    vec![format!("{begin}: {}.", each.join("; "))]
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
        (EnclosurePlace::OnBack, Room::Box) => {
            "In its sleeve, taped to the back of the frame or the bars, never to the art."
        }
        (EnclosurePlace::UnderLastWrap, Room::Box) => {
            "Flat on the back, in its sleeve and never over the face; the wrap covers it."
        }
        (EnclosurePlace::OnFloor, Room::Box) => match (hard, way_in) {
            (true, Some(WayIn::Edge | WayIn::ShortEdge | WayIn::Halves)) => {
                "On the floor of the box, in a corner, wrapped so that it can't wander."
            }
            (true, _) => "Beside the lower edge, in the gap, wrapped so that it can't wander.",
            (false, Some(WayIn::Edge | WayIn::ShortEdge | WayIn::Halves)) => {
                "Flat on the floor of the box."
            }
            (false, _) => "Flat beside the lower edge.",
        },
        (EnclosurePlace::OnTop, Room::Box) if hard => {
            "At the upper edge, in the gap, wrapped so that it can't wander."
        }
        (EnclosurePlace::OnTop, Room::Box) => {
            "On top: the first thing that is seen when the box is opened."
        }
    }
}

/// Where there is room for what goes in besides.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Room {
    /// Around the piece in its box.
    Box,
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

    fn glass_tape(&self, tape: &GlassTape) -> Vec<String> {
        let laid = match tape.pattern {
            GlassPattern::Star => {
                "Lay four strips on the glass: one down its middle, one across, and both diagonals."
                    .to_owned()
            }
            GlassPattern::Lattice => format!(
                "Lay a lattice on the glass: {} from top to bottom and {} from side to side, evenly apart.",
                number(tape.upright),
                number(tape.level)
            ),
        };
        vec![
            laid,
            "Stay on the glass, clear of the frame, and fold one end of each strip over to a tab, so that the buyer can peel it.".to_owned(),
        ]
    }

    fn spacer(&self, spacer: &WindowSpacer) -> Vec<String> {
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
        match spacer.lies {
            SpacerLies::OnBorder if spacer.margin > Length::ZERO => vec![
                format!(
                    "Lay the two {long} strips, {wide} wide and {high}, on the bare border along the long sides: each runs {} past the sheet at both ends.",
                    self.length(spacer.margin)
                ),
                format!(
                    "Lay the two {short} strips between them, on the border too. Tape the ends of the long ones to the board, and the short ones to the long ones: no tape on the sheet."
                ),
            ],
            SpacerLies::OnBorder => vec![
                format!(
                    "Lay the strips, {wide} wide and {high}, on the bare border: two of {long}, and two of {short} between them."
                ),
                "Tape their ends over the edges of the piece, never on the picture.".to_owned(),
            ],
            SpacerLies::OutsideSheet => vec![
                format!(
                    "Lay the strips, {wide} wide and {high}, on the back board around the sheet, {away} away from it: two of {short} beside its short edges, two of {long} along its long ones, past their ends."
                ),
                "Tape both ends of each to the board, none to the sheet.".to_owned(),
            ],
            SpacerLies::Beside => vec![
                "Lay the piece face up in the middle of the board behind it.".to_owned(),
                format!(
                    "Stand the bars of foam around it, {away} away: two of {short} beside its short edges, two of {long} along its long ones, past their ends. Tape both ends of each to the board, none to the piece."
                ),
                format!(
                    "They stand {} higher than its face: the board before it lies on them.",
                    self.length(spacer.stands_off)
                ),
            ],
        }
    }

    fn collar(&self, collar: &FoamCollar) -> Vec<String> {
        vec![
            format!(
                "Stand the bars of foam around the frame, {} high: the two of {} beside it, the two of {} above and below, over their ends.",
                self.length(collar.height),
                self.length(collar.short_bar),
                self.length(collar.long_bar)
            ),
            "Tape them to each other at the corners, foam to foam: no tape on the frame."
                .to_owned(),
        ]
    }

    fn rim(&self, strip: &RimStrip) -> Vec<String> {
        let size = self.sides(&[strip.length, strip.height]);
        let strips = match strip.count {
            1 => format!(
                "Bend the {size} strip of foam around the rim, on its edge, until its ends meet."
            ),
            count => format!(
                "Bend {} strips of foam, {size}, around the rim, on their edges, end to end.",
                number(count)
            ),
        };
        vec![
            strips,
            "Tape end to end, then take a band of tape once round the foam: no tape on the piece."
                .to_owned(),
        ]
    }

    fn chocks(&self, cradle: &Cradle) -> Vec<String> {
        let count = u32::try_from(cradle.chocks.len()).unwrap_or(u32::MAX);
        vec![
            format!(
                "Lay the piece face up on the {} board, {} from its left edge and {} from the lower one. Draw round it with a pencil, and take it off.",
                self.sides(&[cradle.width, cradle.height]),
                self.length(cradle.left),
                self.length(cradle.below)
            ),
            format!(
                "Set the {} chocks, {} high, along the line from outside, where the drawing shows them.",
                number(count),
                self.length(cradle.chock_height)
            ),
            "Tape each to the board with two strips on its outer side. A drop of hot glue under it holds better: let it cool before anything lies there.".to_owned(),
        ]
    }

    fn cradle(&self, layer: &Layer) -> Vec<String> {
        let mut says = vec![
            "Lay the piece between the chocks, face up, until it touches each of them.".to_owned(),
        ];
        let loose = layer.parts.iter().find_map(|part| match part.take {
            Take::Loose { volume_m3 } => Some((volume_m3, part)),
            _ => None,
        });
        if let Some((volume, part)) = loose {
            says.push(format!(
                "Fill the free corners of the board with {} of {}, no higher than the chocks.",
                self.telling.poured(volume),
                in_sentence(&part.material_name)
            ));
        }
        says
    }

    fn sheet_on_board(&self, folio: &Folio) -> Vec<String> {
        let mut says = self.folio(folio);
        says.truncate(2);
        says
    }

    fn contact(&self, sheet: &ContactSheet, layer: &Layer) -> Vec<String> {
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
        vec![
            format!(
                "{sheets}, fold it over {} onto the back, and pull it until no wrinkle is left.",
                if self.shaped {
                    "the rim in pleats, all round,"
                } else {
                    "all four edges"
                }
            ),
            "Tape it on the back only, one end of each strip folded over to a tab.".to_owned(),
        ]
    }

    fn interleaves(&self, sheets: &Interleaves) -> Vec<String> {
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
        std::iter::once(lay).chain(joined).collect()
    }

    /// Tells whether a roll is packed.
    fn is_roll(&self) -> bool {
        self.what == ROLL
    }

    fn bundle(&self, bundle: &Bundle) -> Vec<String> {
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
        let mut says = vec![format!("Make {piles}, with the first piece face up.")];
        if bundle.deep > 1 {
            says.push(format!(
                "{how}, until all {} lie there.",
                number(bundle.count)
            ));
        }
        if stacks > 1 {
            says.push("Stand a board between any two piles.".to_owned());
        }
        says.push("Bind them with tape once each way, so that none slides.".to_owned());
        says
    }

    fn folio(&self, folio: &Folio) -> Vec<String> {
        vec![
            format!(
                "Fold {} paper corners from squares of {}, and push one over each corner of the sheet.",
                number(4),
                self.length(folio.pocket_square)
            ),
            format!(
                "Lay the sheet in the middle of the back board, {} from its edges, and tape the paper corners down: no tape touches the sheet.",
                self.length(folio.margin)
            ),
            "Lay the front board on, its flutes across those of the back board, and tape the two shut along all four edges.".to_owned(),
        ]
    }

    fn pockets(&self, pocket: &CardPocket) -> Vec<String> {
        let [across, up] = [self.size.width, self.size.height].map(|side| pocket.strip_along(side));
        vec![
            format!(
                "Fold four pockets with a {} leg, the tab outside, and push one over each corner, the single face in front.",
                self.length(pocket.leg)
            ),
            format!(
                "Tape them to each other across the back, along its four edges: two strips of {}, two of {}.",
                self.length(across),
                self.length(up)
            ),
        ]
    }

    fn slip_ons(&self, corners: &SlipOns) -> Vec<String> {
        vec![format!(
            "Push {} corners on, one over each corner, and tape them to each other across the back with two tabs each.",
            number(corners.count)
        )]
    }

    fn back_fill(&self, pad: &BackFill) -> Vec<String> {
        vec![format!(
            "Lay the {} pad into the hollow behind, between the bars: it stays below them and touches the canvas nowhere.",
            self.sides(&[pad.width, pad.height, pad.thickness])
        )]
    }

    fn face_boards(&self, boards: &FaceBoards, layer: &Layer) -> Vec<String> {
        let size = self.sides(&[boards.width, boards.height]);
        let lay = match (boards.behind, boards.back) {
            (true, Some(back)) => format!(
                "Lay the {size} board before the face and the {} board behind.",
                self.sides(&[back.width, back.height])
            ),
            (true, None) => format!("Lay one {size} board before the face and one behind."),
            (false, _) => format!("Lay the {size} board before the face."),
        };
        let taped = layer.parts.iter().any(|part| part.id == PartId::Tape);
        let held = if taped {
            "Slide the work over the edge of the bench and tape the boards there, over each edge in turn: don't lift it."
        } else {
            "Hold them there: the film binds them."
        };
        let band = boards.banded.then(|| {
            "Take a band of tape once around both boards each way: it holds the old frame together, and touches board alone.".to_owned()
        });
        let clean = "Wipe the boards clean of dust.".to_owned();
        [clean, lay, held.to_owned()]
            .into_iter()
            .chain(band)
            .collect()
    }

    fn film(&self, film: &StretchFilm, layer: &Layer) -> Vec<String> {
        let around = match layer.slot {
            LayerSlot::BoxFilm | LayerSlot::BoxWrap => "the inner box",
            LayerSlot::WrapFilm => "the wrapped piece",
            _ => "the boards",
        };
        vec![format!(
            "{} round {around}, top to bottom, stretched a little; rub its end down.",
            times(film.turns)
        )]
    }

    fn bag(&self, bag: &SealedBag) -> Vec<String> {
        vec![format!(
            "Slide it into the {} bag with {}, press the air out, and seal the open side.",
            self.sides(&[bag.width, bag.height]),
            match bag.sachets {
                1 => "one sachet".to_owned(),
                count => format!("{} sachets", number(count)),
            }
        )]
    }

    fn roll(&self, roll: &Roll) -> Vec<String> {
        let core = self.length(roll.inner);
        vec![
            if roll.cored {
                format!("Roll it face out onto the {core} core, with its sheet, without pulling.")
            } else {
                format!("Roll it face out, with its sheet, {core} wide inside, without pulling.")
            },
            format!(
                "It comes to {} across. Close a band of paper around each end, taped to itself with a tab: no tape on the art.",
                self.length(roll.outer)
            ),
        ]
    }

    fn wrap(&self, strip: &WrapStrip, layer: &Layer) -> Vec<String> {
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
        let mut says = Vec::new();
        if self.bubbles {
            says.push(if layer.slot == LayerSlot::BoxWrap {
                "Flat side toward the box, bubbles out.".to_owned()
            } else {
                "Flat side toward the art, bubbles out.".to_owned()
            });
        }
        says.push(format!("{} round, {way}, {with}.", times(strip.turns)));
        says.push(match layer.slot {
            LayerSlot::InsetWrap => {
                "It lies between the rolled ends of the wrap under it: tape the seam behind, with a tab."
                    .to_owned()
            }
            LayerSlot::BoxWrap => {
                "Tape the seam on the side of the back, roll both open ends in toward the inner box, and tape each down with a tab."
                    .to_owned()
            }
            _ => "Tape the seam behind, roll both open ends in toward the piece, and tape each down with a tab."
                .to_owned(),
        });
        says
    }

    fn face_pads(&self, pads: &FacePads) -> Vec<String> {
        let size = self.sides(&[pads.width, pads.height, pads.thickness]);
        vec![if pads.pads == 1 {
            format!("Lay one {size} pad over the face and one behind.")
        } else {
            format!(
                "Lay {} pads of {size} over the face, one at each corner, and as many behind.",
                number(pads.pads)
            )
        }]
    }

    fn edge_pads(&self, pads: &EdgePads, layer: &Layer) -> Vec<String> {
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
        vec![format!(
            "Set them along the edges, {} thick: {}. Tape each to the next one, end to end.",
            self.length(pads.thickness),
            strips.join(", ")
        )]
    }

    fn corner_blocks(&self, blocks: &CornerBlocks) -> Vec<String> {
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
        cut_out.into_iter().chain([set]).collect()
    }

    fn slides(&self) -> bool {
        matches!(
            self.way_in,
            Some(WayIn::Edge | WayIn::ShortEdge | WayIn::Halves)
        )
    }

    fn paper_rolls(&self, rolls: &PaperRolls) -> Vec<String> {
        let sheets = if rolls.sheets == 1 {
            "one sheet".to_owned()
        } else {
            format!("{} sheets", number(rolls.sheets))
        };
        let rows = match rolls.rows {
            1 => String::new(),
            rows => format!(", in {} rows beside each other", number(rows)),
        };
        vec![
            format!(
                "Roll {sheets} of {} loosely for each, {} across: {} rolls in all.",
                self.sides(&[rolls.sheet_length, rolls.sheet_cut]),
                self.length(rolls.loose),
                number(rolls.count())
            ),
            if self.slides() {
                format!(
                    "Tape them along the four edges of {}{rows}, with a tab at both ends of each: they slide in with it.",
                    self.what
                )
            } else {
                format!("Lay them along the four edges in the box{rows}.")
            },
        ]
    }

    fn springs(&self, springs: &CardSprings) -> Vec<String> {
        vec![
            format!(
                "Fold the four strips in zigzag, a crease every {}: {} legs for the sides, {} for top and bottom.",
                self.length(springs.leg),
                springs.upright.legs,
                springs.level.legs
            ),
            if self.slides() {
                format!(
                    "Tape one along each edge of {}, with a tab at both ends: they slide in with it.",
                    self.what
                )
            } else {
                "Set one along each edge in the box.".to_owned()
            },
        ]
    }

    fn padding_sheets(&self, sheets: &PaddingSheets) -> Vec<String> {
        let size = self.sides(&[sheets.width, sheets.height]);
        let all = if sheets.count == 1 {
            format!("the {size} sheet")
        } else {
            format!("{} sheets of {size}", number(sheets.count))
        };
        vec![match self.way_in {
            Some(WayIn::Face) => {
                format!("Lay {all} flat on the floor of the box: the piece lies on them.")
            }
            Some(WayIn::Blank) => format!("Lay {all} flat on its back, before the lids close."),
            _ => format!(
                "Lay {all} flat on the back of {} and tape them at their four sides: nothing can be pushed in behind later.",
                self.what
            ),
        }]
    }

    /// Returns how the fill of a turn is laid.
    pub(super) fn filling(&self, fill: &EdgeFill, turn: FillTurn, stuff: &str) -> Vec<String> {
        fill.laid(turn)
            .map(|place| self.one_fill(fill, place, &in_sentence(stuff)))
            .collect()
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
            (FillGap::Walls, _) => format!(
                "{amount} as two flat pads, one on each side wall, {thick}, taped at both ends: what is loose there drops down."
            ),
            (FillGap::UpperWalls, _) => format!(
                "{amount} as two flat pads, {thick}, taped to both sides of {what} above the half that it stands in."
            ),
            (FillGap::Front, FillTurn::Before) => format!(
                "{amount} as a flat pad on the front wall, {thick}, taped at its four sides."
            ),
            (FillGap::Front, FillTurn::OnPiece) => format!(
                "{amount} as a flat pad, {thick}, taped to the front of {what} at its four sides."
            ),
            (FillGap::Front, FillTurn::After) => {
                format!("{amount} spread flat over the front, {thick}.")
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
    pub(super) fn lining(&self, lining: &Lining, last: bool) -> Vec<String> {
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
        vec![if last {
            format!(
                "Set the rest of the lining: {}. It holds by its own fit.",
                sides.join(", ")
            )
        } else {
            format!(
                "Set the lining against these sides, the large ones first: {}. It holds by its own fit.",
                sides.join(", ")
            )
        }]
    }
}
