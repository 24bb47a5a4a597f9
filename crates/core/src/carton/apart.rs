//! A blank that no sheet takes whole, in its parts: each with the lap that joins it to the next.

use super::{
    Blank, Hinge, JoinedAs, Panel, PanelRole, Point,
    blank::{near, runs},
};
use crate::quantity::Length;

impl Blank {
    /// Returns its parts from the left, cut apart at some of its scores. Each but the last has a lap beyond its score, as high as the panels
    /// that meet there, which is folded at that score and lies outside the next part.
    #[must_use]
    pub fn cut_apart(&self, cuts: &[Length], lap: Length) -> Vec<Self> {
        let of = cuts.len() + 1;
        let ends = cuts.iter().copied().chain([self.width]);
        let starts = std::iter::once(Length::ZERO).chain(cuts.iter().copied());
        starts
            .zip(ends)
            .enumerate()
            .map(|(at, (from, to))| self.between((from, to), lap, JoinedAs { n: at + 1, of }))
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

    fn between(&self, (from, to): (Length, Length), lap: Length, joined: JoinedAs) -> Self {
        let last = to >= self.width;
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
        let shifted = |point: Point| Point::new(point.x - from, point.y);
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
        let edge = to - from;
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
                    Point::new(edge, low),
                    Point::new(edge + lap, high),
                ));
                hinges.push(Hinge {
                    between: [on, panels.len() - 1],
                    from: shifted(hinge.from),
                    to: shifted(hinge.to),
                    ..*hinge
                });
            }
        }
        let width = if last { edge } else { edge + lap };
        let upright = hinges.iter().filter(|hinge| near(hinge.from.x, hinge.to.x));
        let level = hinges.iter().filter(|hinge| near(hinge.from.y, hinge.to.y));
        Self {
            part: self.part,
            joined: Some(joined),
            laps_over: self.laps_over.filter(|_| has_tab),
            closing: self.closing,
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
    use super::*;
    use crate::{
        carton::{BoxSize, SlottedEdge},
        house::Allowances,
    };

    /// Inside 740 × 560 × 90 of 4 mm: scores at 742, 836 and 1580, 1709 wide. Cut at 836 with a lap of 40: parts of 876 and 873, both
    /// 662 high. The lap is as high as the walls, 560 + 8 = 568.
    #[test]
    fn a_blank_in_two_parts_has_every_score_once_and_one_lap() {
        let [length, width, height, caliper] = [740.0, 560.0, 90.0, 4.0].map(Length::mm);
        let size = BoxSize {
            length,
            width,
            height,
            caliper,
        };
        let blank = SlottedEdge(size).blank(&Allowances::default());
        let cut = Length::mm(836.0);
        let parts = blank.cut_apart(&[cut], Length::mm(40.0));
        let widths: Vec<f64> = parts.iter().map(|part| part.width.as_mm()).collect();
        assert_eq!(widths, [876.0, 873.0]);
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
}
