//! Bought cartons: of one size, scored for several depths, two trays, two halves, and sets of corners with or without middles.

use serde::Serialize;

use super::{
    Container, Opening, SealStrip, Titles, Use, WayIn,
    picture::{Body, Scene, Side},
    seal, seal_after, sealing,
    slotted::Slotted,
    telescope::Halves,
    tray,
};
use crate::{
    act::{Act, Does, MovePicture, Pose, Thing, Until},
    carton::BoxSize,
    house::{CartonStyle, SealRule},
    material::{Kit, PictureCarton},
    part::{PartId, StripId},
    quantity::{Length, Stiffness},
    space::Opens,
    text::capital,
};

/// A bought carton, set to what it holds.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BoughtBox {
    /// Inside, along the long side of the art's face.
    #[serde(rename = "inside_length_mm")]
    pub inside_length: Length,
    /// Inside, along the short side of the art's face.
    #[serde(rename = "inside_width_mm")]
    pub inside_width: Length,
    /// Inside, through the art.
    #[serde(rename = "inside_height_mm")]
    pub inside_height: Length,
    /// Of its wall.
    #[serde(rename = "wall_mm")]
    pub wall: Length,
    /// That slide into each other, or close over each other.
    pub parts: u32,
    /// What kind of kit it is.
    pub kit: Kit,
    /// The parts of a set of corners; `None` for any other carton.
    pub set: Option<KitParts>,
    /// The depth that it is scored for beyond the one that it is folded at: so far its corners are slit. 0 for any other carton.
    #[serde(rename = "slit_mm")]
    pub slit: Length,
    /// On which side it opens.
    pub opens: Opens,
    /// How its wall resists bending; unknown when absent.
    #[serde(rename = "stiffness_nm")]
    pub stiffness: Option<Stiffness>,
    /// How it is sealed, strip by strip, in the order in which they are laid.
    pub seal: Vec<SealStrip>,
}

/// The parts of a set of corners: how many there are, how large each is, and how far they lap.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct KitParts {
    /// Side by side while it is packed, and above each other.
    pub grid: [u32; 2],
    /// One corner: along the floor, and up.
    #[serde(rename = "corner_mm")]
    pub corner: [Length; 2],
    /// How far a corner laps the next part: along the floor, and up. 0 where there is none.
    #[serde(rename = "laps_mm")]
    pub laps: [Length; 2],
    /// No two parts lap by less.
    #[serde(rename = "least_lap_mm")]
    pub least_lap: Length,
    /// Whether the piece stands on its long edge.
    pub on_long_edge: bool,
}

impl KitParts {
    /// Returns the parts of a set of corners, set to a size inside: along the long side of the art's face, and along the short one.
    ///
    /// A set of two or three slides along one side, one of four along both; of six and eight, middles go over the joints. A corner is as
    /// long as the share that makes the largest size with its lap, and never longer than the least size. Source: house rule.
    #[must_use]
    pub fn of(carton: &PictureCarton, [long, short]: [Length; 2]) -> Self {
        // A set that slides along its short side alone stands on its long one.
        let along_long = carton.shortest.is_some() || carton.narrowest.is_none();
        let [in_long, in_short] = match carton.parts {
            0..=2 if along_long => [2, 1],
            0..=2 => [1, 2],
            3 if along_long => [3, 1],
            3 => [1, 3],
            4 | 5 => [2, 2],
            6 | 7 => [3, 2],
            _ => [3, 3],
        };
        let share = |most: Length, least: Option<Length>, count: u32| {
            let parts = f64::from(count);
            let share = (most + carton.lap * (parts - 1.0)) / parts;
            // Two that are pushed home are as long as one of them.
            least
                .filter(|_| count == 2)
                .map_or(share, |least| share.max(least.min(most)))
        };
        let long_part = share(carton.longest, carton.shortest, in_long);
        let short_part = share(carton.widest, carton.narrowest, in_short);
        // What slides along its long side alone is filled standing on its short edge.
        let on_long_edge = in_short > 1;
        let (grid, corner, set) = if on_long_edge {
            ([in_long, in_short], [long_part, short_part], [long, short])
        } else {
            ([in_short, in_long], [short_part, long_part], [short, long])
        };
        let laps = [0, 1].map(|way: usize| match grid[way] {
            1 => Length::ZERO,
            2 => corner[way] * 2.0 - set[way],
            // A middle reaches so far over both parts beside it.
            _ => carton.lap,
        });
        Self {
            grid,
            corner: [0, 1].map(|way: usize| {
                // Under a middle the two beside it may meet.
                let most = if grid[way] == 3 {
                    set[way] / 2.0
                } else {
                    set[way]
                };
                corner[way].min(most)
            }),
            laps,
            least_lap: carton.lap,
            on_long_edge,
        }
    }

    /// How it is inside as it stands: along the floor, and up.
    fn stands(&self, [long, short]: [Length; 2]) -> [Length; 2] {
        if self.on_long_edge {
            [long, short]
        } else {
            [short, long]
        }
    }
}

/// Strips around a kit, each as long as the inside sides that it follows and its returns.
struct KitSeal {
    strips: Vec<SealStrip>,
    tape_return: Length,
}

impl KitSeal {
    fn add(
        &mut self,
        on: StripId,
        count: u32,
        first: bool,
        (length, path): (Length, Vec<[Length; 3]>),
    ) {
        for _ in 0..count {
            self.strips.push(SealStrip {
                on,
                order: seal::SEAMS,
                filament: false,
                first,
                length: length + self.tape_return * 2.0,
                path_mm: path.clone(),
            });
        }
    }
}

/// A strip over both faces and the edge between them, so far up from the floor.
fn over_floor(x: Length, up: Length, through: Length, from: Length) -> (Length, Vec<[Length; 3]>) {
    (
        up * 2.0 + through,
        vec![
            [x, from + up, Length::ZERO],
            [x, from, Length::ZERO],
            [x, from, through],
            [x, from + up, through],
        ],
    )
}

/// Once round, across the height of a set.
fn around(y: Length, [across, through]: [Length; 2]) -> (Length, Vec<[Length; 3]>) {
    (
        (across + through) * 2.0,
        vec![
            [Length::ZERO, y, Length::ZERO],
            [across, y, Length::ZERO],
            [across, y, through],
            [Length::ZERO, y, through],
            [Length::ZERO, y, Length::ZERO],
        ],
    )
}

impl PictureCarton {
    /// Returns every strip on a carton that is set to three sides inside, in the order in which they are laid.
    ///
    /// Source: packaging engineering practice: a strip along each edge that laps, twice round where two pairs meet, two bands both ways
    /// round trays, an H over floor and opening of a slotted carton, whose own joint holds.
    #[must_use]
    pub fn seal(
        &self,
        [long, short, through]: [Length; 3],
        tape_return: Length,
        rule: SealRule,
    ) -> Vec<SealStrip> {
        let size = BoxSize {
            length: long,
            width: short,
            height: through,
            caliper: self.wall,
        };
        let own_joint =
            |on: StripId| !matches!(on, StripId::AlongTheJoint | StripId::AlongTheJoints);
        match self.kit() {
            Kit::Carton => {
                let mut strips = match self.opens {
                    Opens::Face => CartonStyle::SlottedFace.seal(size, tape_return, rule),
                    Opens::EdgeLong => CartonStyle::SlottedEdge.seal(size, tape_return, rule),
                    Opens::EdgeShort => seal::on_a_short_edge(size, tape_return, rule),
                };
                strips.retain(|strip| own_joint(strip.on));
                strips
            }
            Kit::Telescope => {
                let mut strips = CartonStyle::Telescope.seal(size, tape_return, rule);
                strips.retain(|strip| own_joint(strip.on));
                strips
            }
            Kit::Trays => {
                let mut kit = KitSeal {
                    strips: Vec::new(),
                    tape_return,
                };
                let middle = [long / 2.0, short / 2.0];
                let none = Length::ZERO;
                let band = |points: [[Length; 3]; 5], along: Length| {
                    ((along + through) * 2.0, points.to_vec())
                };
                let lengthwise = [
                    [none, middle[1], none],
                    [long, middle[1], none],
                    [long, middle[1], through],
                    [none, middle[1], through],
                    [none, middle[1], none],
                ];
                let across = [
                    [middle[0], none, none],
                    [middle[0], short, none],
                    [middle[0], short, through],
                    [middle[0], none, through],
                    [middle[0], none, none],
                ];
                kit.add(
                    StripId::AroundTheTraysLengthwise,
                    2,
                    false,
                    band(lengthwise, long),
                );
                kit.add(StripId::AroundTheTraysAcross, 2, false, band(across, short));
                seal::with_rule(kit.strips, (size, tape_return), rule)
            }
            Kit::Corners => {
                let parts = KitParts::of(self, [long, short]);
                let mut kit = KitSeal {
                    strips: Vec::new(),
                    tape_return,
                };
                parts.sealed(&mut kit, parts.stands([long, short]), through);
                seal::with_rule(kit.strips, (size, tape_return), rule)
            }
        }
    }
}

impl KitParts {
    /// Lays the strips of a set of corners.
    fn sealed(&self, kit: &mut KitSeal, [across, up]: [Length; 2], through: Length) {
        let [corner_x, corner_y] = self.corner;
        let ends = [corner_x - self.laps[0], across - corner_x + self.laps[0]];
        match self.grid[0] {
            1 => {}
            2 => {
                let lower = over_floor(corner_x, corner_y, through, Length::ZERO);
                let upper = over_floor(corner_x, corner_y, through, up - corner_y);
                kit.add(StripId::AcrossTheLowerPair, 1, true, lower);
                kit.add(StripId::AcrossTheUpperPair, 1, true, upper);
            }
            _ => {
                for x in ends {
                    let strip = over_floor(x, corner_y, through, Length::ZERO);
                    kit.add(StripId::AlongTheFloorMiddle, 1, true, strip);
                }
                for x in ends {
                    let strip = over_floor(x, corner_y, through, up - corner_y);
                    kit.add(StripId::AlongTheTopMiddle, 1, false, strip);
                }
            }
        }
        let laps = [corner_y - self.laps[1], up - corner_y + self.laps[1]];
        match (self.grid[0], self.grid[1]) {
            (_, 1) => {}
            (_, 2) => kit.add(
                StripId::AroundTheLap,
                2,
                false,
                around(up - corner_y, [across, through]),
            ),
            (1, _) => {
                for y in laps {
                    kit.add(
                        StripId::AroundTheLap,
                        2,
                        false,
                        around(y, [across, through]),
                    );
                }
            }
            // A side middle reaches to the middle, where the two lap.
            _ => {
                let reach = (across + self.laps[0]) / 2.0;
                for y in laps {
                    for x in [Length::ZERO, across] {
                        let path = vec![
                            [across / 2.0, y, Length::ZERO],
                            [x, y, Length::ZERO],
                            [x, y, through],
                            [across / 2.0, y, through],
                        ];
                        kit.add(
                            StripId::AlongTheSideMiddles,
                            1,
                            false,
                            (reach * 2.0 + through, path),
                        );
                    }
                }
            }
        }
    }

    /// Its parts where they are in the end, the corners below first: each by its column and its row.
    fn bodies(&self, [across, up]: [f64; 2], through: f64) -> Vec<(usize, usize, Body)> {
        let corner = self.corner.map(Length::as_mm);
        let laps = self.laps.map(Length::as_mm);
        let [columns, rows] = self.grid.map(|count| usize::try_from(count).unwrap_or(1));
        let reach = |way: usize, at: usize, count: usize, whole: f64| -> [f64; 2] {
            let [own, lap] = [corner[way], laps[way]];
            match (count, at) {
                (1, _) => [0.0, whole],
                (_, 0) => [0.0, own],
                (count, at) if at + 1 == count => [whole - own, whole],
                _ => [own - lap, whole - own + lap],
            }
        };
        let mut bodies = Vec::new();
        for row in 0..rows {
            for column in 0..columns {
                let [y1, y2] = reach(1, row, rows, up);
                let mut sides = vec![Side::Front, Side::Back];
                sides.extend((row == 0).then_some(Side::Bottom));
                sides.extend((row + 1 == rows).then_some(Side::Top));
                let middle_row = rows == 3 && row == 1;
                let middle_column = columns == 3 && column == 1;
                // The centre of nine is covered by the middles beside it.
                if middle_row && middle_column {
                    continue;
                }
                sides.extend((column == 0).then_some(Side::Left));
                sides.extend((column + 1 == columns).then_some(Side::Right));
                let [x1, x2] = if middle_row && columns == 3 {
                    let half = f64::midpoint(across, laps[0]);
                    if column == 0 {
                        [0.0, half]
                    } else {
                        [across - half, across]
                    }
                } else {
                    reach(0, column, columns, across)
                };
                bodies.push((
                    column,
                    row,
                    Body::part([x1, y1, 0.0], [x2, y2, through], &sides),
                ));
            }
        }
        bodies
    }
}

/// What the parts of a set are called, row by row from below.
struct SetNames {
    lower: PartId,
    upper: PartId,
}

impl BoughtBox {
    /// Returns the carton as hands make, load, close and open it.
    #[must_use]
    pub fn container(&self, of: &Use) -> Container {
        match (self.kit, &self.set) {
            (Kit::Carton, _) | (Kit::Corners, None) => self.of_one_size(of),
            (Kit::Telescope, _) => Halves {
                inside: self.inside(),
                half: self.half(),
                strips: self.seal.clone(),
                net: None,
                doubled: Vec::new(),
            }
            .container(of),
            (Kit::Trays, _) => self.trays(of),
            (Kit::Corners, Some(set)) => self.corners(of, set),
        }
    }

    /// Returns how something gets in.
    #[must_use]
    pub const fn way_in(&self) -> WayIn {
        let on_long_edge = match &self.set {
            Some(set) => set.on_long_edge,
            None => false,
        };
        self.kit.way_in(self.opens, on_long_edge)
    }

    const fn inside(&self) -> [Length; 3] {
        [self.inside_length, self.inside_width, self.inside_height]
    }

    /// Half of a telescope that laps as one that is cut.
    fn half(&self) -> Length {
        BoxSize {
            length: self.inside_length,
            width: self.inside_width,
            height: self.inside_height,
            caliper: self.wall,
        }
        .telescope()
        .half()
    }

    /// How far each short flap laps over the middle of a carton that is folded at less than its greatest depth.
    fn short_flaps_lap(&self) -> Length {
        short_flaps_lap([self.inside_length, self.inside_width], self.slit)
    }

    fn of_one_size(&self, of: &Use) -> Container {
        let part = PartId::Carton;
        let mut made = vec![Act::on(Does::Fold, part, "Open the carton out to a ring.")];
        if self.slit > Length::ZERO {
            let depth = of.length(self.inside_height);
            let slit = of.length(self.slit);
            let short = self.short_flaps_lap();
            let and_short = if short > Length::ZERO {
                format!(", and {} off each short one", of.length(short))
            } else {
                String::new()
            };
            made.extend([
                Act::on(
                    Does::Cut,
                    part,
                    format!(
                        "Slit its four corners from the rim down to the crease for {depth}: {slit} each."
                    ),
                ),
                Act::on(
                    Does::Fold,
                    part,
                    format!("Fold all four flaps at the crease for {depth}, once and back."),
                ),
                Act::on(
                    Does::Cut,
                    part,
                    format!(
                        "Cut {slit} off the end of each long flap{and_short}: they then meet in the middle."
                    ),
                ),
            ]);
        }
        Slotted {
            part,
            opens: self.opens,
            inside: self.inside(),
            strips: self.seal.clone(),
            net: None,
            made,
            more_parts: Vec::new(),
        }
        .container(of)
    }

    fn trays(&self, of: &Use) -> Container {
        let (lower, upper) = (PartId::Tray, PartId::Lid);
        let (what, face) = (of.what, of.face);
        let bands = [
            StripId::AroundTheTraysLengthwise,
            StripId::AroundTheTraysAcross,
        ];
        let mut seal = vec![Act::tape(
            upper,
            &bands,
            "Go twice round with tape lengthwise, then twice across, over both trays.",
        )];
        seal.extend(seal_after(of, lower, &self.seal));
        Container {
            parts: vec![lower, upper],
            strips: self.seal.clone(),
            openings: vec![Opening {
                sealed_by: bands.to_vec(),
                loads: true,
            }],
            way_in: WayIn::Face,
            mouth: Some([self.inside_length, self.inside_width]),
            stages: Vec::new(),
            all_at_once: false,
            follows: None,
            measured: false,
            lid: "the upper tray",
            titles: Titles {
                ready: "Fold the trays".to_owned(),
                load: format!("Lay {what} in"),
                close: "Put the upper tray on".to_owned(),
                seal: sealing(of.part(PartId::Box)),
                open: capital(of.part(PartId::Box).name()),
            },
            ready: vec![
                Act::on(
                    Does::Fold,
                    lower,
                    "Fold up the walls of both trays, and push the tabs of their corners home.",
                )
                .to(upper),
                Act::on(
                    Does::Lay,
                    lower,
                    "Lay the smaller tray on the bench, its inside up.",
                ),
            ],
            load: vec![
                Act::goods(
                    Does::Lay,
                    lower,
                    format!("Lay {what} in, {face} up, with the same gap on all four sides."),
                )
                .lying(Pose::FaceUp)
                .lifting(of.over(self.inside()[2]))
                .seen(tray::lying(self.inside())),
            ],
            close: vec![
                Act::on(
                    Does::Lay,
                    upper,
                    "Set the other tray over it, down to its stop.",
                )
                .to(lower)
                .until(Until::Stop)
                .seen(tray::covered(self.inside(), self.inside_height)),
            ],
            seal,
            open: vec![
                Act::cut_open(upper, &bands, "Cut the bands of tape at the edges."),
                Act::on(Does::Lift, upper, "Lift the upper tray straight up."),
                Act::new(
                    Does::Lift,
                    Thing::Goods,
                    "Lift out what is inside with both hands.",
                ),
            ],
        }
    }

    /// A set of corners: its lower parts, what stands in them, then its upper parts over them.
    fn corners(&self, of: &Use, set: &KitParts) -> Container {
        let in_set = Set {
            of,
            set,
            inside: set.stands([self.inside_length, self.inside_width]),
            through: self.inside_height,
            wall: self.wall,
            names: match set.grid[0] {
                1 => SetNames {
                    lower: PartId::LowerHalf,
                    upper: PartId::UpperHalf,
                },
                _ => SetNames {
                    lower: PartId::LowerCorner,
                    upper: PartId::UpperCorner,
                },
            },
        };
        let [columns, rows] = set.grid;
        let mut parts = vec![in_set.names.lower, in_set.names.upper];
        parts.extend((columns == 1 && rows == 3).then_some(PartId::Middle));
        if columns == 3 {
            parts.extend([PartId::FloorMiddle, PartId::TopMiddle]);
        }
        parts.extend((columns == 3 && rows == 3).then_some(PartId::SideMiddle));
        let first: Vec<StripId> = kinds(&self.seal, true);
        let last: Vec<StripId> = kinds(&self.seal, false)
            .into_iter()
            .filter(|on| !matches!(on, StripId::AlongTheEdges | StripId::OverTheNarrowSides))
            .collect();
        let mut openings = vec![Opening {
            sealed_by: last.clone(),
            loads: true,
        }];
        openings.extend((!first.is_empty()).then_some(Opening {
            sealed_by: first,
            loads: false,
        }));
        let lower = in_set.names.lower;
        let mut seal = in_set.seal();
        seal.extend(seal_after(of, lower, &self.seal));
        let lid = if columns == 1 {
            "the upper half"
        } else {
            "the upper corners"
        };
        let (what, whole) = (of.what, if columns == 1 { "half" } else { "corners" });
        Container {
            parts,
            strips: self.seal.clone(),
            openings,
            way_in: self.way_in(),
            mouth: Some([in_set.inside[0], self.inside_height]),
            stages: Vec::new(),
            all_at_once: false,
            follows: None,
            measured: false,
            lid,
            titles: Titles {
                ready: if columns == 1 {
                    "Fold the halves".to_owned()
                } else {
                    "Join the lower corners".to_owned()
                },
                load: format!("Stand {what} in"),
                close: format!("Push the upper {whole} on"),
                seal: sealing(of.part(PartId::Box)),
                open: capital(of.part(PartId::Box).name()),
            },
            ready: in_set.ready(),
            load: in_set.load(),
            close: in_set.close(),
            seal,
            open: vec![
                Act::cut_open(
                    lower,
                    &last,
                    if rows == 3 && columns == 3 {
                        "Cut the tape along the middles at both sides and on top, no deeper than the tape."
                    } else {
                        "Cut the tape all round where the upper part ends, no deeper than the tape."
                    },
                ),
                Act::on(
                    Does::Lift,
                    in_set.names.upper,
                    if columns == 1 {
                        "Pull the upper half off."
                    } else {
                        "Lift the upper corners off together."
                    },
                ),
                Act::new(
                    Does::Lift,
                    Thing::Goods,
                    "Take the filling out at the edges, and lift out what is inside with both hands.",
                ),
            ],
        }
    }
}

/// Kinds of strips that belong to the making, or that don't.
fn kinds(strips: &[SealStrip], first: bool) -> Vec<StripId> {
    let mut kinds = Vec::new();
    for strip in strips.iter().filter(|strip| strip.first == first) {
        if !kinds.contains(&strip.on) {
            kinds.push(strip.on);
        }
    }
    kinds
}

/// A set of corners while its acts are told.
struct Set<'a> {
    of: &'a Use,
    set: &'a KitParts,
    /// As it stands: along the floor, and up.
    inside: [Length; 2],
    through: Length,
    wall: Length,
    names: SetNames,
}

impl Set<'_> {
    /// Its bodies in the rows of which some are there, each perhaps moved.
    fn rows(&self, of: impl Fn(usize, usize) -> Option<[f64; 3]>) -> Vec<Body> {
        let bodies = self
            .set
            .bodies(self.inside.map(Length::as_mm), self.through.as_mm());
        bodies
            .iter()
            .filter_map(|(column, row, body)| of(*column, *row).map(|by| body.moved(by)))
            .collect()
    }

    fn goods(&self, lifted: f64) -> Body {
        let [x, y] = self.inside.map(Length::as_mm);
        let z = self.through.as_mm();
        let gap = x * 0.03;
        Body::goods(
            [gap, gap + lifted, z * 0.15],
            [x - gap, y - gap + lifted, z * 0.85],
        )
    }

    /// The lower row while it is joined: one part still beside the others.
    fn joining(&self) -> MovePicture {
        let [x, y] = [self.inside[0].as_mm(), self.set.corner[1].as_mm()];
        let aside = x * 0.3;
        let last = self.set.grid[0] - 1;
        let at_end = |column: usize| u32::try_from(column) == Ok(last);
        let bodies = self.rows(|column, row| {
            (row == 0 && (self.set.grid[0] == 2 || column != 1)).then_some([
                if at_end(column) { aside } else { 0.0 },
                0.0,
                0.0,
            ])
        });
        Scene::of(bodies)
            .moving(
                [x + aside * 0.9, y * 0.6, 0.0],
                [x + aside * 0.3, y * 0.6, 0.0],
            )
            .drawn()
    }

    /// The middle over the joint of the lower row, pushed up from below.
    fn floor_middle(&self) -> MovePicture {
        let [x, y] = [self.inside[0].as_mm(), self.set.corner[1].as_mm()];
        let below = y * 0.45;
        let bodies = self.rows(|column, row| {
            (row == 0).then_some([0.0, if column == 1 { -below } else { 0.0 }, 0.0])
        });
        Scene::of(bodies)
            .moving([x / 2.0, -below * 0.9, 0.0], [x / 2.0, -below * 0.2, 0.0])
            .drawn()
    }

    fn loading(&self) -> MovePicture {
        let lifted = self.set.corner[1].as_mm() * 0.7;
        let mut bodies = self.rows(|_, row| (row == 0).then_some([0.0; 3]));
        bodies.push(self.goods(lifted));
        let x = self.inside[0].as_mm() / 2.0;
        Scene::of(bodies)
            .moving([x, lifted, 0.0], [x, lifted * 0.3, 0.0])
            .drawn()
    }

    fn closing(&self, row: usize) -> MovePicture {
        let by = self.set.corner[1].as_mm() * 0.6;
        let last = self.set.grid[1] as usize - 1;
        let mut bodies = self.rows(|column, at| {
            // The middle on top comes last, and those at the sides after both corners.
            let middle = self.set.grid[0] == 3 && column == 1 && at > 0;
            (at <= row && !middle).then_some([0.0, if at == row { by } else { 0.0 }, 0.0])
        });
        bodies.insert(1.min(bodies.len()), self.goods(0.0));
        let [x, y] = self.inside.map(Length::as_mm);
        let high = if row == last { y } else { y * 0.7 };
        Scene::of(bodies)
            .moving(
                [x / 2.0, high + by * 0.8, 0.0],
                [x / 2.0, high + by * 0.1, 0.0],
            )
            .drawn()
    }

    /// The middle that goes over the last joint.
    fn top_middle(&self) -> MovePicture {
        let by = self.set.corner[1].as_mm() * 0.45;
        let last = self.set.grid[1] as usize - 1;
        let mut bodies = self.rows(|column, row| {
            let moves = column == 1 && row == last;
            Some([0.0, if moves { by } else { 0.0 }, 0.0])
        });
        bodies.insert(0, self.goods(0.0));
        let [x, y] = self.inside.map(Length::as_mm);
        Scene::of(bodies)
            .moving([x / 2.0, y + by * 0.9, 0.0], [x / 2.0, y + by * 0.2, 0.0])
            .drawn()
    }

    /// Middles at both sides, pushed on from outside.
    fn side_middles(&self) -> MovePicture {
        let [x, y] = self.inside.map(Length::as_mm);
        let by = x * 0.25;
        let mut bodies = self.rows(|column, row| {
            if column == 1 && row > 0 {
                return None;
            }
            let out = match (row, column) {
                (1, 0) => -by,
                (1, _) => by,
                _ => 0.0,
            };
            Some([out, 0.0, 0.0])
        });
        bodies.insert(0, self.goods(0.0));
        Scene::of(bodies)
            .moving([x + by * 0.9, y / 2.0, 0.0], [x + by * 0.2, y / 2.0, 0.0])
            .drawn()
    }

    fn ready(&self) -> Vec<Act> {
        let SetNames { lower, upper } = self.names;
        let long = self.of.length(self.inside[0]);
        let over = self.of.length(self.inside[0] + self.wall * 2.0);
        let lap = self.of.length(self.set.laps[0]);
        match self.set.grid {
            [1, rows] => {
                let mut acts = vec![
                    Act::on(
                        Does::Fold,
                        lower,
                        "Fold both halves along their creases, and lock their ends.",
                    )
                    .to(upper),
                ];
                acts.extend((rows == 3).then(|| {
                    Act::on(
                        Does::Fold,
                        PartId::Middle,
                        "Fold the middle to a ring that goes over the halves.",
                    )
                }));
                acts
            }
            [2, _] => vec![
                Act::on(
                    Does::Fold,
                    lower,
                    "Fold all four corners along their creases.",
                )
                .to(upper),
                Act::on(
                    Does::Slide,
                    lower,
                    format!(
                        "Slide two of them into each other until they are {long} long inside: this is the lower pair."
                    ),
                )
                .until(Until::Measures {
                    inside_mm: self.inside[0],
                })
                .seen(self.joining()),
                Act::tape(
                    lower,
                    &[StripId::AcrossTheLowerPair],
                    "Tape the lower pair where it laps, in one strip over face, floor and back.",
                ),
                Act::on(
                    Does::Slide,
                    upper,
                    format!(
                        "Slide the other two into each other until they are {over} long inside, so that they go over the lower pair."
                    ),
                )
                .until(Until::Measures {
                    inside_mm: self.inside[0] + self.wall * 2.0,
                }),
                Act::tape(
                    upper,
                    &[StripId::AcrossTheUpperPair],
                    "Tape the upper pair where it laps, in one strip over face, top and back.",
                ),
            ],
            [_, rows] => vec![
                Act::on(
                    Does::Fold,
                    lower,
                    format!(
                        "Fold all {} along their creases.",
                        if rows == 3 { "eight parts" } else { "six parts" }
                    ),
                )
                .to(upper),
                Act::on(
                    Does::Stand,
                    lower,
                    format!("Stand two corners on the bench so that they are {long} long inside: the lower corners."),
                )
                .until(Until::Measures {
                    inside_mm: self.inside[0],
                }),
                Act::on(
                    Does::Push,
                    PartId::FloorMiddle,
                    format!("Push a middle over their joint from below, {lap} over each corner."),
                )
                .to(lower)
                .until(Until::Laps {
                    lap_mm: self.set.laps[0],
                })
                .seen(self.floor_middle()),
                Act::tape(
                    PartId::FloorMiddle,
                    &[StripId::AlongTheFloorMiddle],
                    "Tape both edges of the middle, each in one strip over face, floor and back.",
                )
                .to(lower),
            ],
        }
    }

    fn load(&self) -> Vec<Act> {
        let lower = self.names.lower;
        let Use { what, face, .. } = *self.of;
        let pair = match self.set.grid[0] {
            1 => "lower half",
            2 => "lower pair",
            _ => "lower part",
        };
        let edge = if self.set.on_long_edge {
            "long edge"
        } else {
            "short edge"
        };
        if self.of.too_heavy_over(self.set.corner[1]) {
            let on = if self.set.on_long_edge {
                format!("Lay the {pair} on its back, its opening level with the bench.")
            } else {
                format!("Lay the {pair} on its long edge, its opening level with the bench.")
            };
            let push = if self.set.on_long_edge {
                format!(
                    "Push {what} in flat on a sheet of card, {face} up, then set both up again."
                )
            } else {
                format!(
                    "Push {what} in upright, on its long edge on a sheet of card, {face} to the front."
                )
            };
            return vec![
                Act::on(Does::Stand, lower, on),
                Act::goods(Does::Slide, lower, push)
                    .lying(Pose::Standing)
                    .lifting(self.of.over(Length::ZERO)),
            ];
        }
        vec![
            Act::goods(
                Does::Stand,
                lower,
                format!("Stand {what} in the {pair} on its {edge}, {face} to the front."),
            )
            .lying(Pose::Standing)
            .lifting(self.of.over(self.set.corner[1]))
            .seen(self.loading()),
        ]
    }

    fn close(&self) -> Vec<Act> {
        let SetNames { lower, upper } = self.names;
        let lap = self.of.length(self.set.laps[1]);
        match self.set.grid {
            [1, 3] => vec![
                Act::on(
                    Does::Push,
                    PartId::Middle,
                    format!("Push the middle over the lower half, {lap} over its rim."),
                )
                .to(lower)
                .until(Until::Laps {
                    lap_mm: self.set.laps[1],
                })
                .seen(self.closing(1)),
                Act::on(
                    Does::Push,
                    upper,
                    format!(
                        "Push the upper half into the middle until it presses on the fill. It laps by at least {lap}."
                    ),
                )
                .to(PartId::Middle)
                .until(Until::Presses)
                .seen(self.closing(2)),
            ],
            [1 | 2, _] => vec![
                Act::on(
                    Does::Push,
                    upper,
                    format!(
                        "Push the upper {} over the lower one until it presses on the fill. The two lap by about {lap}, never by less than {}.",
                        if self.set.grid[0] == 1 { "half" } else { "pair" },
                        self.of.length(self.set.least_lap)
                    ),
                )
                .to(lower)
                .until(Until::Presses)
                .seen(self.closing(1)),
            ],
            [_, 2] => vec![
                Act::on(
                    Does::Push,
                    upper,
                    format!(
                        "Push an upper corner over each lower one until it presses on the fill. They lap by about {lap}."
                    ),
                )
                .to(lower)
                .until(Until::Presses)
                .seen(self.closing(1)),
                self.topped(),
            ],
            _ => vec![
                Act::on(
                    Does::Stand,
                    upper,
                    format!("Set an upper corner on each upper corner of {}.", self.of.what),
                )
                .until(Until::Presses),
                Act::on(
                    Does::Push,
                    PartId::SideMiddle,
                    format!(
                        "Push a middle over the joint at each side, {lap} over the corners above and below it."
                    ),
                )
                .to(upper)
                .until(Until::Laps {
                    lap_mm: self.set.laps[1],
                })
                .seen(self.side_middles()),
                self.topped(),
            ],
        }
    }

    fn topped(&self) -> Act {
        let lap = self.of.length(self.set.laps[0]);
        Act::on(
            Does::Push,
            PartId::TopMiddle,
            format!("Push the last middle over the joint on top, {lap} over each corner."),
        )
        .to(self.names.upper)
        .until(Until::Laps {
            lap_mm: self.set.laps[0],
        })
        .seen(self.top_middle())
    }

    fn seal(&self) -> Vec<Act> {
        let SetNames { lower, upper } = self.names;
        let mut acts = Vec::new();
        if self.set.grid == [3, 3] {
            acts.push(
                Act::tape(
                    PartId::SideMiddle,
                    &[StripId::AlongTheSideMiddles],
                    "Tape both edges of each middle at the sides, over face, side and back.",
                )
                .to(upper),
            );
        } else {
            let says = if self.set.grid == [1, 3] {
                "Go twice round both edges of the middle, half of each strip on either part."
            } else {
                "Go twice round the edge of the lap, half of each strip on either part."
            };
            acts.push(Act::tape(upper, &[StripId::AroundTheLap], says).to(lower));
        }
        if self.set.grid[0] == 3 {
            acts.push(
                Act::tape(
                    PartId::TopMiddle,
                    &[StripId::AlongTheTopMiddle],
                    "Tape both edges of the middle on top, over face, top and back.",
                )
                .to(upper),
            );
        }
        acts
    }
}

/// How far each of two flaps across the short side, longer by what is slit, laps over the middle of the long one.
pub(crate) fn short_flaps_lap([long, short]: [Length; 2], slit: Length) -> Length {
    if slit > Length::ZERO {
        ((short + slit * 2.0 - long) / 2.0).max(Length::ZERO)
    } else {
        Length::ZERO
    }
}

impl Kit {
    /// Returns how something gets in; of a set of corners, by the edge that it stands on.
    #[must_use]
    pub const fn way_in(self, opens: Opens, on_long_edge: bool) -> WayIn {
        match self {
            Self::Carton => opens.way_in(),
            Self::Trays => WayIn::Face,
            Self::Telescope => WayIn::Halves,
            Self::Corners if on_long_edge => WayIn::Edge,
            Self::Corners => WayIn::Halves,
        }
    }
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;
    use rust_decimal_macros::dec;

    use super::*;
    use crate::{
        container::BoxPlace,
        material::{MaterialId, Shelf},
        quantity::{Mass, Telling},
    };

    /// A kit of some parts, of the largest and the least size that it is set to.
    fn kit(
        parts: u32,
        kit: Kit,
        [longest, widest, deepest]: [f64; 3],
        least: [Option<f64>; 2],
    ) -> PictureCarton {
        let [shortest, narrowest] = least.map(|side| side.map(Length::mm));
        PictureCarton {
            id: MaterialId::new("kit"),
            name: "Kit".into(),
            longest: Length::mm(longest),
            widest: Length::mm(widest),
            deepest: Length::mm(deepest),
            shortest,
            narrowest,
            shallowest: None,
            depths: Vec::new(),
            parts,
            kit_said: Some(kit),
            lap: Length::mm(60.0),
            opens: Opens::Face,
            outside_adds: None,
            stiffness: None,
            wall: Length::mm(4.0),
            mass: Mass::g(2400.0),
            price: dec!(12),
            shelf: Shelf::default(),
        }
    }

    fn set(carton: &PictureCarton, inside: [f64; 3], rule: SealRule) -> BoughtBox {
        let [long, short, through] = inside.map(Length::mm);
        BoughtBox {
            inside_length: long,
            inside_width: short,
            inside_height: through,
            wall: carton.wall,
            parts: carton.parts,
            kit: carton.kit(),
            set: (carton.kit() == Kit::Corners).then(|| KitParts::of(carton, [long, short])),
            slit: Length::ZERO,
            opens: carton.opens,
            stiffness: None,
            seal: carton.seal([long, short, through], Length::mm(50.0), rule),
        }
    }

    fn used(mass: Mass, place: BoxPlace) -> Use {
        Use {
            what: "the wrapped piece",
            face: "its face",
            place,
            mass,
            room: Length::ZERO,
            pane: false,
            filled: true,
            outside_long: Length::mm(1000.0),
            telling: Telling::default(),
        }
    }

    fn strips(carton: &PictureCarton, inside: [f64; 3]) -> Vec<(StripId, u32, f64)> {
        let seal = carton.seal(inside.map(Length::mm), Length::mm(50.0), SealRule::H);
        let alike = super::super::alike(&seal);
        let told = alike
            .iter()
            .map(|(strip, count)| (strip.on, *count, strip.length.as_mm()));
        told.collect()
    }

    /// 1220 × 920 in corners of 640 and (920 + 60) / 2 = 490, set to 980 × 780 × 110: 490 + 110 + 490 + 100 = 1190 over each pair, and
    /// twice 2 × (980 + 110) + 100 = 2280 around where they lap, by 2 × 490 − 780 = 200.
    #[test]
    fn a_set_of_four_is_taped_over_both_pairs_and_twice_round() {
        let four = kit(
            4,
            Kit::Corners,
            [1220.0, 920.0, 110.0],
            [Some(640.0), Some(490.0)],
        );
        assert_eq!(
            strips(&four, [980.0, 780.0, 110.0]),
            [
                (StripId::AcrossTheLowerPair, 1, 1190.0),
                (StripId::AcrossTheUpperPair, 1, 1190.0),
                (StripId::AroundTheLap, 2, 2280.0),
            ]
        );
        let parts = KitParts::of(&four, [980.0, 780.0].map(Length::mm));
        assert_eq!(parts.laps, [300.0, 200.0].map(Length::mm));
        assert!(parts.on_long_edge);
    }

    /// Halves of 560 for up to 1050, set to 980: they lap by 140, and 2 × (820 + 110) + 100 = 1960 goes round twice.
    #[test]
    fn a_set_of_two_stands_on_its_short_edge_and_is_taped_twice_round() {
        let two = kit(2, Kit::Corners, [1050.0, 820.0, 110.0], [Some(560.0), None]);
        assert_eq!(
            strips(&two, [980.0, 820.0, 110.0]),
            [(StripId::AroundTheLap, 2, 1960.0)]
        );
        let parts = KitParts::of(&two, [980.0, 820.0].map(Length::mm));
        assert_eq!(
            (parts.laps[1], parts.on_long_edge),
            (Length::mm(140.0), false)
        );
        assert_eq!(
            set(&two, [980.0, 820.0, 110.0], SealRule::H).way_in(),
            WayIn::Halves
        );
    }

    /// Whether some part has a side over each place of what it holds.
    fn encloses(bodies: &[Body], [x, y, z]: [f64; 3]) -> Result<(), String> {
        let covers = |body: &Body, side: Side, at: [f64; 3]| {
            let across = match side {
                Side::Left | Side::Right => [1, 2],
                Side::Bottom | Side::Top => [0, 2],
                Side::Front | Side::Back => [0, 1],
            };
            body.sides.contains(&side)
                && across
                    .into_iter()
                    .all(|way| (body.low[way]..=body.high[way]).contains(&at[way]))
        };
        for side in Side::ALL {
            for step in 0..81 {
                let share = [f64::from(step % 9) / 8.0, f64::from(step / 9) / 8.0];
                let at = match side {
                    Side::Left | Side::Right => [0.0, y * share[0], z * share[1]],
                    Side::Bottom | Side::Top => [x * share[0], 0.0, z * share[1]],
                    Side::Front | Side::Back => [x * share[0], y * share[1], 0.0],
                };
                if !bodies.iter().any(|body| covers(body, side, at)) {
                    return Err(format!("{side:?} is open at {at:?}"));
                }
            }
        }
        Ok(())
    }

    fn any_kit() -> impl Strategy<Value = (PictureCarton, [f64; 3])> {
        let parts = prop::sample::select(vec![
            (1, Kit::Carton),
            (2, Kit::Trays),
            (2, Kit::Telescope),
            (2, Kit::Corners),
            (3, Kit::Corners),
            (4, Kit::Corners),
            (6, Kit::Corners),
            (8, Kit::Corners),
        ]);
        (
            parts,
            400.0..2200.0_f64,
            0.5..1.0_f64,
            40.0..150.0_f64,
            0.0..=1.0_f64,
            any::<[bool; 2]>(),
        )
            .prop_map(|((parts, of), longest, share, deep, closed, slides)| {
                let widest = longest * share;
                let least = |most: f64| most * 0.62;
                let along = slides[0].then(|| least(longest));
                let across = slides[1].then(|| least(widest));
                let carton = kit(parts, of, [longest, widest, deep], [along, across]);
                let to = |most: f64, least: Option<f64>| {
                    least.map_or(most, |least| least + (most - least) * closed)
                };
                let inside = [to(longest, along), to(widest, across), deep];
                (carton, inside)
            })
    }

    proptest! {
        /// It kills: a seam that is sealed never or twice, a middle that nobody pushes on, and a kit whose parts leave a hole.
        #[test]
        fn whatever_kit_is_bought_can_be_packed_and_encloses_what_it_holds(
            (carton, inside) in any_kit(), heavy in any::<bool>(),
            rule in prop::sample::select(vec![SealRule::H, SealRule::EverySeam, SealRule::Covered]),
            place in prop::sample::select(vec![BoxPlace::Only, BoxPlace::Inner, BoxPlace::Outer]),
        ) {
            let bought = set(&carton, inside, rule);
            let mass = Mass::kg(if heavy { 20.0 } else { 2.0 });
            let container = bought.container(&used(mass, place));
            prop_assert_eq!(container.faults(), Vec::<String>::new());
            if let Some(parts) = &bought.set {
                let [long, short, _] = inside.map(Length::mm);
                let stands = parts.stands([long, short]).map(Length::as_mm);
                let bodies: Vec<Body> = parts.bodies(stands, inside[2]).into_iter().map(|(_, _, body)| body).collect();
                let [columns, rows] = parts.grid;
                let holes = u32::from(columns == 3 && rows == 3);
                prop_assert_eq!(bodies.len(), (columns * rows - holes) as usize);
                prop_assert_eq!(encloses(&bodies, [stands[0], stands[1], inside[2]]), Ok(()));
                for lap in parts.laps {
                    prop_assert!(lap == Length::ZERO || lap.as_mm() >= 60.0 - 1e-6, "{:?}", parts);
                }
            }
        }
    }
}
