//! A blank that no sheet takes whole, in its parts: each with the lap that joins it to the next.

use super::{
    Blank, Hinge, JoinedAs, Panel, PanelRole, Point,
    blank::{near, runs},
};
use crate::quantity::Length;

/// How the parts of a blank are joined.
#[derive(Debug, Clone, Copy)]
pub struct Lap {
    /// How far each lap reaches beyond its score.
    pub reach: Length,
    /// How thick the board is.
    pub caliper: Length,
}

/// One part of a blank, between the scores at which it is cut apart.
struct Span {
    from: Length,
    to: Length,
    first: bool,
    last: bool,
}

impl Lap {
    /// How much of a part is cut off before its first panel: its edge ends at the inner face of the panel before, as the free edge of a
    /// slotted box does at its joint.
    fn cut_off(self, span: &Span) -> Length {
        if span.first {
            Length::ZERO
        } else {
            self.caliper / 2.0
        }
    }

    /// Where the last score of a part lies: of one with a lap a board further out, since the lap lies outside the next part.
    fn end(self, span: &Span) -> Length {
        let at = span.to - span.from - self.cut_off(span);
        if span.last { at } else { at + self.caliper }
    }

    /// How wide a part is, with its lap.
    fn width(self, span: &Span) -> Length {
        let end = self.end(span);
        if span.last { end } else { end + self.reach }
    }

    /// Returns how wide the parts of a blank are that is cut apart at some of its scores, each but the last with its lap.
    pub(super) fn widths(self, blank: Length, cuts: &[Length]) -> Vec<Length> {
        spans(blank, cuts).map(|span| self.width(&span)).collect()
    }
}

fn spans(width: Length, cuts: &[Length]) -> impl Iterator<Item = Span> {
    let ends = cuts.iter().copied().chain([width]);
    let starts = std::iter::once(Length::ZERO).chain(cuts.iter().copied());
    starts.zip(ends).enumerate().map(|(at, (from, to))| Span {
        from,
        to,
        first: at == 0,
        last: at == cuts.len(),
    })
}

impl Blank {
    /// Returns its parts from the left, cut apart at some of its scores. Each but the last has a lap beyond its score, as high as the panels
    /// that meet there, which is folded at that score and lies outside the next part. Source: packaging engineering practice, as the tab of
    /// a slotted box; folded again as slabs.
    #[must_use]
    pub fn cut_apart(&self, cuts: &[Length], lap: Lap) -> Vec<Self> {
        let of = cuts.len() + 1;
        spans(self.width, cuts)
            .enumerate()
            .map(|(at, span)| self.between(&span, lap, JoinedAs { n: at + 1, of }))
            .collect()
    }

    /// The scores at which another part goes on, at a distance from the left edge.
    fn meeting(&self, at: Length) -> impl Iterator<Item = &Hinge> {
        self.hinges
            .iter()
            .filter(move |hinge| near(hinge.from.x, at) && near(hinge.to.x, at))
    }

    /// How high the panels are that meet at a score, as far as it parts the blank.
    #[must_use]
    pub fn meets_along(&self, at: Length) -> Length {
        self.meeting(at)
            .map(|hinge| hinge.to.y.max(hinge.from.y) - hinge.to.y.min(hinge.from.y))
            .sum()
    }

    fn between(&self, span: &Span, lap: Lap, joined: JoinedAs) -> Self {
        let Span { from, to, last, .. } = *span;
        let is_in = |panel: &Panel| {
            let mut across = panel.outline.iter().map(|point| point.x);
            across.all(|x| x >= from && x <= to || near(x, from) || near(x, to))
        };
        // Outward from the panel that lay still, or from one that hung on the part before or after.
        let own: Vec<usize> = (0..self.panels.len())
            .filter(|at| is_in(&self.panels[*at]))
            .collect();
        let hung = |at: &usize| {
            *at == self.root
                || self
                    .hinges
                    .iter()
                    .any(|hinge| hinge.between[1] == *at && !own.contains(&hinge.between[0]))
        };
        let mut order: Vec<usize> = own.iter().copied().find(hung).into_iter().collect();
        let mut hinges: Vec<Hinge> = Vec::new();
        let (cut_off, end) = (lap.cut_off(span), lap.end(span));
        let shifted = |point: Point| {
            let x = match point.x {
                x if near(x, from) => Length::ZERO,
                x if near(x, to) => end,
                x => x - from - cut_off,
            };
            Point::new(x, point.y)
        };
        let mut next = 0;
        while next < order.len() {
            let panel = order[next];
            for hinge in &self.hinges {
                let [one, other] = hinge.between;
                let beyond = match panel {
                    at if at == one => other,
                    at if at == other => one,
                    _ => continue,
                };
                if own.contains(&beyond) && !order.contains(&beyond) {
                    order.push(beyond);
                    hinges.push(Hinge {
                        between: [next, order.len() - 1],
                        from: shifted(hinge.from),
                        to: shifted(hinge.to),
                        ..*hinge
                    });
                }
            }
            next += 1;
        }
        let mut panels: Vec<Panel> = order
            .iter()
            .map(|at| {
                let panel = &self.panels[*at];
                Panel {
                    outline: panel.outline.iter().copied().map(shifted).collect(),
                    ..panel.clone()
                }
            })
            .collect();
        let has_tab = panels.iter().any(|panel| panel.role == PanelRole::Tab);
        if !last {
            for hinge in self.meeting(to) {
                let on = hinge
                    .between
                    .iter()
                    .find_map(|side| order.iter().position(|at| at == side));
                let (low, high) = (hinge.from.y.min(hinge.to.y), hinge.from.y.max(hinge.to.y));
                let Some(on) = on else { continue };
                panels.push(Panel::rectangle(
                    "lap",
                    PanelRole::Tab,
                    Point::new(end, low),
                    Point::new(end + lap.reach, high),
                ));
                hinges.push(Hinge {
                    between: [on, panels.len() - 1],
                    from: shifted(hinge.from),
                    to: shifted(hinge.to),
                    ..*hinge
                });
            }
        }
        let width = lap.width(span);
        let upright = hinges.iter().filter(|hinge| near(hinge.from.x, hinge.to.x));
        let level = hinges.iter().filter(|hinge| near(hinge.from.y, hinge.to.y));
        Self {
            part: self.part,
            joined: Some(joined),
            laps_over: self.laps_over.filter(|_| has_tab),
            inner_flap: self.inner_flap,
            width,
            height: self.height,
            area: panels.iter().map(Panel::area).sum(),
            root: 0,
            runs_across: runs(width, upright.map(|hinge| hinge.from.x)),
            runs_up: runs(self.height, level.map(|hinge| hinge.from.y)),
            panels,
            hinges,
        }
    }
}

#[cfg(test)]
mod tests {
    use glam::{DAffine3, DMat4, DVec3, DVec4};

    use super::*;
    use crate::{
        carton::{BoxSize, SlottedEdge, Solid},
        house::Allowances,
    };

    const LAP: Lap = Lap {
        reach: Length::mm(40.0),
        caliper: Length::mm(4.0),
    };

    fn slotted() -> SlottedEdge {
        let [length, width, height, caliper] = [740.0, 560.0, 90.0, 4.0].map(Length::mm);
        SlottedEdge(BoxSize {
            length,
            width,
            height,
            caliper,
        })
    }

    /// Inside 740 × 560 × 90 of 4 mm: scores at 742, 836 and 1580, 1709 wide. Cut at 836 with a lap of 40: the wall before it is a board
    /// wider, 836 + 4 + 40 = 880; the wall after it loses half a board, 1709 − 836 − 2 = 871. Both are 662 high. The lap is as high as the
    /// walls, 560 + 8 = 568.
    #[test]
    fn a_blank_in_two_parts_has_every_score_once_and_one_lap() {
        let blank = slotted().blank(&Allowances::default());
        let cut = Length::mm(836.0);
        let parts = blank.cut_apart(&[cut], LAP);
        let widths: Vec<f64> = parts.iter().map(|part| part.width.as_mm()).collect();
        assert_eq!(widths, [880.0, 871.0]);
        assert_eq!(
            LAP.widths(blank.width, &[cut]),
            [880.0, 871.0].map(Length::mm)
        );
        for part in &parts {
            assert_eq!(part.check(), Ok(()));
        }
        assert_eq!(blank.meets_along(cut), Length::mm(568.0));
        let laps = |part: &Blank| {
            part.panels
                .iter()
                .filter(|panel| panel.name == "lap")
                .count()
        };
        assert_eq!([laps(&parts[0]), laps(&parts[1])], [1, 0]);
        // The score at the cut is the lap's; every other one lies in one part.
        let hinges: usize = parts.iter().map(|part| part.hinges.len()).sum();
        assert_eq!(hinges, blank.hinges.len());
        let panels: usize = parts.iter().map(|part| part.panels.len()).sum();
        assert_eq!(panels, blank.panels.len() + 1);
        assert_eq!(parts[1].laps_over, blank.laps_over);
        assert_eq!(parts[0].laps_over, None);
    }

    /// A lap lies flat outside the next part, whose edge ends at the inner face of the wall before it: no panel of one part passes through
    /// the other's. It kills: a lap whose score stays where the whole blank had it, an edge that isn't cut back.
    #[test]
    fn parts_that_are_joined_close_like_the_whole() {
        let size = slotted();
        let allowances = Allowances::default();
        let blank = size.blank(&allowances);
        for cut in [742.0, 836.0, 1580.0].map(Length::mm) {
            let [one, other] =
                <[Blank; 2]>::try_from(blank.cut_apart(&[cut], LAP)).expect("two parts");
            let [of_one, of_other] = [&one, &other].map(|part| part.folded(blank.steps().into()));
            // The other part lies inside the lap: its edge half a board past the lap's score, its middle plane a board further in.
            let lap = one
                .panels
                .iter()
                .position(|panel| panel.name == "lap")
                .expect("a lap");
            let score = one.width - LAP.reach;
            let on_lap = DAffine3::from_translation(DVec3::new(
                (score + LAP.caliper / 2.0).as_mm(),
                0.0,
                LAP.caliper.as_mm(),
            ));
            let rows = of_one.matrices()[lap].map(DVec4::from_array);
            let pose = DAffine3::from_mat4(
                DMat4::from_cols(rows[0], rows[1], rows[2], DVec4::W).transpose(),
            );
            // The root of the other part is the panel that is joined.
            let placed = pose * on_lap;
            let near: Vec<Solid> = (0..one.panels.len())
                .map(|panel| of_one.slab(panel, LAP.caliper))
                .collect();
            let far: Vec<Solid> = (0..other.panels.len())
                .map(|panel| of_other.slab(panel, LAP.caliper).moved(&placed))
                .collect();
            for (at, first) in near.iter().enumerate() {
                for (to, second) in far.iter().enumerate() {
                    let through = first.through(second);
                    assert!(
                        through <= LAP.caliper.as_mm() / 2.0 + 0.01,
                        "{cut:?}: {} through {} by {through}",
                        one.panels[at].name,
                        other.panels[to].name
                    );
                }
            }
        }
    }
}
