//! Mailers: one around something flat, or two pushed over a long piece from both ends.

use serde::Serialize;

use super::{
    Container, Opening, SealStrip, Titles, Use, WayIn,
    picture::{Body, Scene, Side},
    seal::SEAMS,
};
use crate::{
    act::{Act, Does, MovePicture, Thing, Until},
    part::{PartId, StripId},
    quantity::{Length, Stiffness},
};

/// A mailer by its sizes.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct MailerBox {
    /// Inside, along the shorter side.
    #[serde(rename = "inside_width_mm")]
    pub inside_width: Length,
    /// Inside, along the longer side.
    #[serde(rename = "inside_length_mm")]
    pub inside_length: Length,
    /// How many: two are pushed over it from both ends.
    pub count: u32,
    /// How far two of them lap each other.
    #[serde(rename = "overlap_mm")]
    pub overlap: Length,
    /// Of its wall.
    #[serde(rename = "wall_mm")]
    pub wall: Length,
    /// How its wall resists bending; unknown when absent.
    #[serde(rename = "stiffness_nm")]
    pub stiffness: Option<Stiffness>,
    /// How it is sealed, strip by strip, in the order in which they are laid.
    pub seal: Vec<SealStrip>,
}

impl MailerBox {
    /// Returns its strips: one across the opening of one mailer, two around the edge of the lap of two. Source: packaging engineering
    /// practice.
    #[must_use]
    pub fn sealed(
        [width, length, through]: [Length; 3],
        count: u32,
        overlap: Length,
        tape_return: Length,
    ) -> Vec<SealStrip> {
        let none = Length::ZERO;
        let strip = |on, length: Length, path_mm: Vec<[Length; 3]>| SealStrip {
            on,
            order: SEAMS,
            filament: false,
            first: false,
            length: length + tape_return * 2.0,
            path_mm,
        };
        if count == 1 {
            let path = vec![[length, none, through], [length, width, through]];
            return vec![strip(StripId::AcrossTheOpening, width, path)];
        }
        // The second goes over the first, and ends half a lap past the middle.
        let at = (length - overlap) / 2.0;
        let path = vec![
            [at, none, none],
            [at, width, none],
            [at, width, through],
            [at, none, through],
            [at, none, none],
        ];
        let one = strip(StripId::AroundTheLap, (width + through) * 2.0, path);
        vec![one.clone(), one]
    }

    /// Returns it as hands load, close and open it.
    #[must_use]
    pub fn container(&self, of: &Use) -> Container {
        let part = PartId::Mailer;
        let what = of.what;
        let titles = |close: &str| Titles {
            ready: "Into the mailer".to_owned(),
            load: "Into the mailer".to_owned(),
            close: close.to_owned(),
            seal: "Seal the mailer".to_owned(),
            open: "Mailer".to_owned(),
        };
        let out = Act::new(
            Does::Slide,
            Thing::Goods,
            "Slide out what is inside; don't bend it.",
        );
        if self.count == 1 {
            return Container {
                parts: vec![part],
                strips: self.seal.clone(),
                openings: vec![Opening {
                    sealed_by: vec![StripId::AcrossTheOpening],
                    loads: true,
                }],
                way_in: WayIn::End,
                mouth: Some([self.inside_width, self.inside_width]),
                stages: Vec::new(),
                all_at_once: true,
                follows: None,
                measured: false,
                lid: "the flap",
                titles: titles("Close the mailer"),
                ready: Vec::new(),
                load: vec![Act::goods(
                    Does::Slide,
                    part,
                    format!(
                        "Slide {what} in, {} to the plain side, up to the closed end, and press the air out.",
                        of.face
                    ),
                )],
                close: vec![Act::on(
                    Does::Fold,
                    part,
                    "Fold the flap over the opening without bending what lies inside.",
                )],
                seal: vec![Act::tape(
                    part,
                    &[StripId::AcrossTheOpening],
                    "Press the flap down along its whole width, and tape it across.",
                )],
                open: vec![
                    Act::cut_open(
                        part,
                        &[StripId::AcrossTheOpening],
                        "Cut the tape across the flap, no deeper than the tape, and lift the flap.",
                    ),
                    out,
                ],
            };
        }
        let second = PartId::SecondMailer;
        let lap = of.length(self.overlap);
        Container {
            parts: vec![part, second],
            strips: self.seal.clone(),
            openings: vec![Opening {
                sealed_by: vec![StripId::AroundTheLap],
                loads: true,
            }],
            way_in: WayIn::End,
            mouth: Some([self.inside_width, self.inside_width]),
            stages: Vec::new(),
            all_at_once: true,
            follows: None,
            measured: false,
            lid: "the second mailer",
            titles: titles("Close the two mailers"),
            ready: Vec::new(),
            load: vec![
                Act::goods(
                    Does::Slide,
                    part,
                    format!(
                        "Push the first mailer over one end of {what}, {} to the plain side, as far as it goes. Its flap stays open and flat.",
                        of.face
                    ),
                )
                .seen(self.drawn(false)),
                Act::on(
                    Does::Push,
                    second,
                    format!(
                        "Push the second mailer over the other end and over the first, until they lap by {lap}."
                    ),
                )
                .to(part)
                .until(Until::Laps {
                    lap_mm: self.overlap,
                })
                .seen(self.drawn(true)),
            ],
            close: vec![Act::on(
                Does::Fold,
                second,
                "Lay the flap of the second flat on the first: no flap is folded in.",
            )],
            seal: vec![
                Act::tape(
                    second,
                    &[StripId::AroundTheLap],
                    "Go twice round the edge of the lap with tape, half of each strip on either mailer.",
                )
                .to(part),
            ],
            open: vec![
                Act::cut_open(
                    second,
                    &[StripId::AroundTheLap],
                    "Cut the tape all round the edge of the lap, no deeper than the tape.",
                ),
                Act::on(Does::Slide, second, "Pull the outer mailer off.").to(part),
                out,
            ],
        }
    }

    /// What lies, with a mailer over one end; or with the second one on its way over the other.
    fn drawn(&self, second: bool) -> MovePicture {
        let [whole, across] = [self.inside_length, self.inside_width].map(Length::as_mm);
        let one = f64::midpoint(whole, self.overlap.as_mm());
        let thick = across * 0.06;
        let first = Body::part([0.0; 3], [one, thick, across], &Side::Right.all_but());
        let off = whole * 0.3;
        let inset = across * 0.05;
        let shift = if second { 0.0 } else { off };
        let goods = Body::goods(
            [inset + shift, thick * 0.2, inset],
            [whole - inset + shift, thick * 0.8, across - inset],
        );
        if !second {
            return Scene::of([first, goods])
                .moving(
                    [whole + off, thick, across / 2.0],
                    [whole, thick, across / 2.0],
                )
                .drawn();
        }
        let other = Body::part(
            [whole - one + off, -thick * 0.3, 0.0],
            [whole + off, thick * 1.3, across],
            &Side::Left.all_but(),
        );
        Scene::of([first, goods, other])
            .moving(
                [whole + off * 0.9, thick * 2.5, 0.0],
                [whole + off * 0.3, thick * 2.5, 0.0],
            )
            .drawn()
    }
}
