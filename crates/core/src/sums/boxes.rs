//! Boxes of every style: what they are cut to, and the nets to fold again.

use serde::{Deserialize, Serialize};

use super::{
    Sum,
    checked::{ALLOWANCE, FRAMES, SIDE, SLIDES, THIN},
};
use crate::{
    Refusal, Refusals,
    carton::{Blank, BoxSize, FoldStep, Panel, Point, Solid, TriangularTube},
    container::{Carton, Container, TubeBox, Use},
    house::{Allowances, CartonStyle, Schools},
    layer::{CardPocket, RollSize},
    part::{PartId, part_and_name},
    quantity::{Area, Length},
};

/// A style of box.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Deserialize, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "kebab-case")]
pub enum BoxStyle {
    /// A scored tray and the flat lid on it.
    TrayAndLid,
    /// Slotted, opening on the face.
    SlottedFace,
    /// Slotted, opening on an edge.
    SlottedEdge,
    /// A scored tray, and a shallow tray over it as a lid.
    TrayAndTray,
    /// A tray of foam board, slit and folded, and the flat lid on it.
    SlitTray,
    /// Wrapped around, its half lids meeting.
    Folder,
    /// Wrapped around, its half lids lapping each other.
    FolderLapped,
    /// Two halves that slide into each other, along the length.
    Telescope,
    /// A tube of three sides with a cap over each end.
    TriangularTube,
    /// A folded card pocket around a corner: its leg is the length, what goes into it the height.
    CornerPocket,
}

/// A box by its inside, or a tube by its roll.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct BoxSum {
    /// How it is made.
    pub style: BoxStyle,
    /// Inside, along the long side of the art's face, 1 to 10 000; of a telescope the way that it slides, from 100;
    /// of a tube the side of the sheet that is not rolled up; of a pocket its leg.
    pub length_mm: f64,
    /// Inside, along the short side of the art's face, 1 to 10 000. A tube has none, nor has a pocket.
    #[serde(default)]
    pub width_mm: Option<f64>,
    /// Inside, through the art, 1 to 10 000. A tube has none.
    #[serde(default)]
    pub height_mm: Option<f64>,
    /// Of the board, 0.01 to 500.
    pub caliper_mm: f64,
    /// The diameter of the roll, 1 to 10 000. Only a tube has one.
    #[serde(default)]
    pub outer_roll_mm: Option<f64>,
    /// The wrap around the roll, 0 to 1000; none when left out. Only a tube has one.
    #[serde(default)]
    pub wrap_mm: Option<f64>,
    /// How thick the rolled sheet is, 0.01 to 500. Only a tube has one.
    #[serde(default)]
    pub sheet_mm: Option<f64>,
    /// The joining tab of a slotted box, 0 to 1000; by the shipped rules when left out.
    #[serde(default)]
    pub tab_mm: Option<f64>,
    /// How wide a slot is cut, 0 to 1000; by the shipped rules when left out.
    #[serde(default)]
    pub slot_mm: Option<f64>,
    /// In how many pictures each step of folding is told, 1 to 60; none are told when left out.
    #[serde(default)]
    pub frames: Option<u32>,
}

/// What it is cut to.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BoxAnswer {
    /// Of the first part, across its flutes.
    pub blank_width_mm: f64,
    /// Of the first part, along its flutes.
    pub blank_height_mm: f64,
    /// Of the first part's outline: slots, bevels and corners are not counted.
    pub area_m2: f64,
    /// Of all parts together, each as often as it is cut.
    pub whole_area_m2: f64,
    /// What a slot is wide; `None` if none is cut.
    pub slot_mm: Option<f64>,
    /// How far the joining tab laps; `None` if there is none.
    pub tab_mm: Option<f64>,
    /// Of a telescope: the shortest inside that the halves can be set to.
    pub least_length_mm: Option<f64>,
    /// Of a telescope: the longest inside that the halves can be set to.
    pub most_length_mm: Option<f64>,
    /// Of a tube: a side of its triangle, inside.
    pub side_mm: Option<f64>,
    /// Every part that is cut; of a telescope the outer half first.
    pub parts: Vec<BoxPart>,
    /// Every part as a net, in the same order.
    pub nets: Vec<BoxNet>,
    /// How each part is folded, in the same order; nothing unless `frames` were asked for.
    pub folding: Option<Vec<Folding>>,
    /// The first part with its panels, scores and running distances.
    pub blank: Blank,
    /// Every part so, in the same order.
    pub blanks: Vec<Blank>,
}

/// A part that is cut.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BoxPart {
    /// What it is.
    #[cfg_attr(feature = "schema", schema(value_type = String))]
    pub name: PartId,
    /// Of the rectangle that it is cut from, across the flutes.
    pub width_mm: f64,
    /// Of the rectangle that it is cut from, along the flutes.
    pub height_mm: f64,
    /// Of its outline.
    pub area_m2: f64,
    /// How many of them.
    pub count: u32,
}

/// A part as a net: with these anyone can fold it again.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct BoxNet {
    /// Which part it is.
    #[serde(flatten, serialize_with = "part_and_name")]
    #[cfg_attr(feature = "schema", schema(value_type = crate::part::NamedPart))]
    pub part: PartId,
    /// The panel that lies still, by its name.
    pub root: &'static str,
    /// Its panels, seen from the inside face, y up.
    pub panels: Vec<NetPanel>,
    /// Its scores, each after those that it hangs on.
    pub hinges: Vec<NetHinge>,
}

/// A panel of a net.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct NetPanel {
    /// What it is called; no two of a net are called alike.
    pub name: &'static str,
    /// Its corners against the clock, from the blank's lower left corner.
    pub outline_mm: Vec<[f64; 2]>,
    /// How far it is moved toward its inner face once it is folded; less than zero is outward.
    pub lift_mm: f64,
}

/// A score of a net.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct NetHinge {
    /// The panel that it hangs on, by its name.
    pub parent: &'static str,
    /// The panel that is turned, by its name.
    pub child: &'static str,
    /// From where to where the score runs.
    pub line_mm: [[f64; 2]; 2],
    /// How far the child is turned, toward the inner face positive.
    pub angle_deg: f64,
    /// All of one number are folded before any of the next.
    pub order: u32,
}

/// How a part is folded.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Folding {
    /// Which part it is.
    #[serde(flatten, serialize_with = "part_and_name")]
    #[cfg_attr(feature = "schema", schema(value_type = crate::part::NamedPart))]
    pub part: PartId,
    /// What to do, step by step: of a box or a tube the acts by which it is made ready, loaded, closed and sealed.
    pub steps: Vec<FoldStep>,
    /// Where every panel lies, picture by picture from flat to folded: for each the twelve numbers of a matrix of
    /// three rows, which takes a place on the flat blank (x, y, and z toward the inner face, mm) to where it lies.
    pub frames: Vec<Vec<[f64; 12]>>,
    /// Whether it closes: no panel passes through another by more than half a board and 0.01 mm, and the inside stays
    /// free.
    pub closes: bool,
    /// How far one panel passes through another that it does not hang on, as slabs of the board; half a board at
    /// most where it closes.
    pub through_mm: f64,
    /// How far a panel reaches into the inside that was asked for; `None` if it stays free, or where the part
    /// has no inside.
    pub into_inside_mm: Option<f64>,
}

/// Board gives so much, beyond half of its caliper where one edge bites into another panel.
const GIVES_MM: f64 = 0.01;

/// A part of a box while it is worked out.
struct Made {
    blank: Blank,
    count: u32,
    /// What has to stay free in it.
    room: Option<Solid>,
}

impl Made {
    /// A corner pocket of a leg, for what is as deep as the box is high.
    fn pocket(size: BoxSize, allowances: &Allowances) -> Self {
        let play = allowances.pocket_play;
        let net = CardPocket::fold(size.length, size.height, size.caliper, play).net();
        Self {
            blank: net.blank(),
            count: 1,
            room: Some(net.room(size.height)),
        }
    }

    fn folding(&self, each: u32, caliper: Length, container: Option<&Container>) -> Folding {
        let blank = &self.blank;
        let frames = (0..=blank.steps() * each).map(|at| {
            let folded = blank.folded(f64::from(at) / f64::from(each));
            let flat = |[x, y, z]: [[f64; 4]; 3]| {
                let mut numbers = [0.0; 12];
                for (place, row) in [x, y, z].into_iter().enumerate() {
                    numbers[place * 4..place * 4 + 4].copy_from_slice(&row);
                }
                numbers
            };
            folded.matrices().into_iter().map(flat).collect()
        });
        let closed = blank.folded(blank.steps().into());
        let through_mm = closed.furthest_through(caliper).map_or(0.0, |(far, _)| far);
        let into_inside_mm = self
            .room
            .as_ref()
            .map(|room| closed.reach_into(room, caliper));
        Folding {
            closes: through_mm <= caliper.as_mm() / 2.0 + GIVES_MM
                && into_inside_mm.is_none_or(|far| far <= GIVES_MM),
            part: blank.part,
            steps: container.map_or_else(|| blank.told(), |of| of.folding_of(blank)),
            frames: frames.collect(),
            through_mm,
            into_inside_mm,
        }
    }
}

/// What of a box is not a part of it.
#[derive(Default)]
struct Beside {
    slot: Option<Length>,
    tab: Option<Length>,
    range: Option<[Length; 2]>,
    side: Option<Length>,
}

/// Whether a style asks for a number.
enum Asks {
    Needs,
    May,
    /// It has none, and this is said where one is given.
    Lacks(&'static str),
}

impl BoxStyle {
    fn asks(self, field: &str) -> Asks {
        let of_a_roll = matches!(field, "outer_roll_mm" | "sheet_mm" | "wrap_mm");
        match self {
            Self::TriangularTube if field == "wrap_mm" => Asks::May,
            Self::TriangularTube if of_a_roll => Asks::Needs,
            Self::TriangularTube => Asks::Lacks("a tube has none: leave it out"),
            _ if of_a_roll => Asks::Lacks("only a tube has one: leave it out"),
            Self::CornerPocket if field == "width_mm" => {
                Asks::Lacks("a pocket has none: leave it out")
            }
            _ => Asks::Needs,
        }
    }

    /// The style of a plan's box; a tube is none, nor is a pocket.
    const fn cut(self) -> Option<CartonStyle> {
        Some(match self {
            Self::TrayAndLid => CartonStyle::TrayAndLid,
            Self::SlottedFace => CartonStyle::SlottedFace,
            Self::SlottedEdge => CartonStyle::SlottedEdge,
            Self::TrayAndTray => CartonStyle::TrayAndTray,
            Self::SlitTray => CartonStyle::SlitTray,
            Self::Folder => CartonStyle::Folder,
            Self::FolderLapped => CartonStyle::FolderLapped,
            Self::Telescope => CartonStyle::Telescope,
            Self::TriangularTube | Self::CornerPocket => return None,
        })
    }
}

impl BoxSum {
    fn check(&self) -> Result<(), Vec<Refusal>> {
        let length = if self.style == BoxStyle::Telescope {
            SLIDES
        } else {
            SIDE
        };
        let mut checked = Refusals::default();
        checked
            .number("length_mm", self.length_mm, length)
            .number("caliper_mm", self.caliper_mm, THIN)
            .if_given("width_mm", self.width_mm, SIDE)
            .if_given("height_mm", self.height_mm, SIDE)
            .if_given("outer_roll_mm", self.outer_roll_mm, SIDE)
            .if_given("wrap_mm", self.wrap_mm, ALLOWANCE)
            .if_given("sheet_mm", self.sheet_mm, THIN)
            .if_given("tab_mm", self.tab_mm, ALLOWANCE)
            .if_given("slot_mm", self.slot_mm, ALLOWANCE);
        if let Some(frames) = self.frames {
            checked.number("frames", f64::from(frames), FRAMES);
        }
        let fields = [
            ("width_mm", self.width_mm),
            ("height_mm", self.height_mm),
            ("outer_roll_mm", self.outer_roll_mm),
            ("sheet_mm", self.sheet_mm),
            ("wrap_mm", self.wrap_mm),
        ];
        // What is lacking is said before what is too much.
        for (field, given) in fields {
            if let (Asks::Needs, None) = (self.style.asks(field), given) {
                checked.refuse(field, "give a number");
            }
        }
        for (field, given) in fields {
            if let (Asks::Lacks(why), Some(_)) = (self.style.asks(field), given) {
                checked.refuse(field, why);
            }
        }
        checked.done()
    }

    /// The shipped rules, with the tab and the slots that were asked for.
    fn allowances(&self) -> Allowances {
        let shipped = Allowances::default();
        let beyond = |asked: Option<f64>, board: f64, usual: Length| {
            asked.map_or(usual, |asked| Length::mm(asked + board))
        };
        Allowances {
            box_tab: beyond(self.tab_mm, self.caliper_mm, shipped.box_tab),
            box_slot_play: beyond(self.slot_mm, -self.caliper_mm, shipped.box_slot_play),
            ..shipped
        }
    }

    /// Returns the parts with how often each is cut.
    fn parts(&self, allowances: &Allowances) -> (Vec<Made>, Beside) {
        let size = self.size();
        let caliper = size.caliper;
        let Some(style) = self.style.cut() else {
            return match self.style {
                BoxStyle::CornerPocket => (vec![Made::pocket(size, allowances)], Beside::default()),
                _ => self.tube(allowances),
            };
        };
        let blanks = style.parts(size, allowances).into_iter();
        let made = blanks
            .zip(style.rooms(size, allowances))
            .map(|(blank, room)| Made {
                blank,
                count: 1,
                room,
            });
        let range = (style == CartonStyle::Telescope).then(|| size.telescope().range());
        let beside = Beside {
            slot: style.slot(caliper, allowances),
            tab: style.tab(caliper, allowances),
            range,
            side: None,
        };
        (made.collect(), beside)
    }

    /// Returns what is cut as hands fold, load and close it; `None` for a corner pocket, which is no container.
    fn container(&self) -> Option<Container> {
        let allowances = self.allowances();
        let long = Length::mm(self.length_mm);
        if let Some(style) = self.style.cut() {
            let seal = Schools::default().seal;
            let carton = Carton::by_sums(style, self.size(), &allowances, seal);
            return Some(carton.container(&Use::by_sums("the wrapped piece", long)));
        }
        (self.style == BoxStyle::TriangularTube).then(|| {
            let tube = self.triangular(&allowances);
            let ends = [allowances.tube_end_pad, allowances.tube_end_air];
            let mut folded = TubeBox::folded(tube.caliper, tube.side, tube.length, ends);
            folded.seal = TubeBox::sealed(tube.cap_outside() * 3.0, tube.length, true);
            folded.container(&Use::by_sums("the roll", long))
        })
    }

    fn size(&self) -> BoxSize {
        let [length, width, height, caliper] = [
            Some(self.length_mm),
            self.width_mm,
            self.height_mm,
            Some(self.caliper_mm),
        ]
        .map(|side| Length::mm(side.unwrap_or_default()));
        BoxSize {
            length,
            width,
            height,
            caliper,
        }
    }

    fn triangular(&self, allowances: &Allowances) -> TriangularTube {
        let given = |side: Option<f64>| Length::mm(side.unwrap_or_default());
        let hole = RollSize::hole(
            given(self.outer_roll_mm),
            given(self.wrap_mm),
            given(self.sheet_mm),
        );
        let ends = (allowances.tube_end_pad + allowances.tube_end_air) * 2.0;
        let [length, caliper] = [self.length_mm, self.caliper_mm].map(Length::mm);
        TriangularTube::around(hole, length + ends, caliper)
    }

    /// Returns a tube and its two caps.
    fn tube(&self, allowances: &Allowances) -> (Vec<Made>, Beside) {
        let tube = self.triangular(allowances);
        let parts = vec![
            Made {
                blank: tube.blank(),
                count: 1,
                room: Some(tube.room()),
            },
            Made {
                blank: tube.cap(),
                count: 2,
                room: None,
            },
        ];
        let beside = Beside {
            side: Some(tube.side),
            ..Beside::default()
        };
        (parts, beside)
    }
}

impl Sum for BoxSum {
    type Answer = BoxAnswer;

    fn work(&self) -> Result<BoxAnswer, Vec<Refusal>> {
        self.check()?;
        let (parts, beside) = self.parts(&self.allowances());
        let whole: Area = parts
            .iter()
            .map(|part| part.blank.area * f64::from(part.count))
            .sum();
        let blank = parts[0].blank.clone();
        let caliper = Length::mm(self.caliper_mm);
        let folding = self.frames.map(|each| {
            let container = self.container();
            let folding = |part: &Made| part.folding(each, caliper, container.as_ref());
            parts.iter().map(folding).collect()
        });
        let mm = |length: Option<Length>| length.map(Length::as_mm);
        Ok(BoxAnswer {
            blank_width_mm: blank.width.as_mm(),
            blank_height_mm: blank.height.as_mm(),
            area_m2: blank.area.as_m2(),
            whole_area_m2: whole.as_m2(),
            slot_mm: mm(beside.slot),
            tab_mm: mm(beside.tab),
            least_length_mm: mm(beside.range.map(|[least, _]| least)),
            most_length_mm: mm(beside.range.map(|[_, most]| most)),
            side_mm: mm(beside.side),
            parts: parts
                .iter()
                .map(|Made { blank, count, .. }| BoxPart {
                    name: blank.part,
                    width_mm: blank.width.as_mm(),
                    height_mm: blank.height.as_mm(),
                    area_m2: blank.area.as_m2(),
                    count: *count,
                })
                .collect(),
            nets: parts.iter().map(|part| BoxNet::of(&part.blank)).collect(),
            folding,
            blank,
            blanks: parts.into_iter().map(|part| part.blank).collect(),
        })
    }
}

impl BoxNet {
    fn of(blank: &Blank) -> Self {
        let name = |panel: usize| blank.panels[panel].name;
        Self {
            part: blank.part,
            root: name(blank.root),
            panels: blank.panels.iter().map(NetPanel::of).collect(),
            hinges: blank
                .hinges
                .iter()
                .map(|hinge| NetHinge {
                    parent: name(hinge.between[0]),
                    child: name(hinge.between[1]),
                    line_mm: [hinge.from, hinge.to].map(numbers),
                    angle_deg: hinge.angle_deg,
                    order: hinge.step,
                })
                .collect(),
        }
    }
}

impl NetPanel {
    fn of(panel: &Panel) -> Self {
        Self {
            name: panel.name,
            outline_mm: panel.outline.iter().copied().map(numbers).collect(),
            lift_mm: panel.lift.as_mm(),
        }
    }
}

fn numbers(point: Point) -> [f64; 2] {
    [point.x.as_mm(), point.y.as_mm()]
}
