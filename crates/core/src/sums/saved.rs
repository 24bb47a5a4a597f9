//! A carton kept from an earlier delivery, made into another size.

use serde::{Deserialize, Serialize};

use super::{
    Sum,
    checked::{SIDE, THIN},
};
use crate::{
    Refusal, Refusals,
    carton::{Blank, BoxSize, DepthCut, LengthCut, NoWay, SavedCarton},
    house::Allowances,
    quantity::Length,
};

/// A carton that opens on the face, and what it is to become.
#[derive(Debug, Clone, Copy, PartialEq, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(deny_unknown_fields)]
pub struct SavedCartonSum {
    /// Inside, along its opening, 1 to 10 000.
    pub length_mm: f64,
    /// Inside, across its opening, 1 to 10 000.
    pub width_mm: f64,
    /// Inside, how deep it is, 1 to 10 000.
    pub height_mm: f64,
    /// Of its board, 0.01 to 500.
    pub caliper_mm: f64,
    /// How deep it is to be, 1 to 10 000: cut down where that is less, with a sleeve where it is more.
    #[serde(default)]
    pub to_height_mm: Option<f64>,
    /// How long it is to be, 1 to 10 000.
    #[serde(default)]
    pub to_length_mm: Option<f64>,
    /// Of a sleeve's board, 0.01 to 500; that of the carton when left out.
    #[serde(default)]
    pub sleeve_caliper_mm: Option<f64>,
}

/// What to cut.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SavedCartonAnswer {
    /// Where it is scored anew to be less deep.
    pub depth: Option<DepthCut>,
    /// Why it is not cut down to that depth, or made deeper.
    pub depth_refused: Option<String>,
    /// Where it is cut round to be shorter.
    pub length: Option<LengthCut>,
    /// Why it is not cut to that length.
    pub length_refused: Option<String>,
    /// The sleeve that makes it deeper.
    pub sleeve: Option<SleeveAnswer>,
    /// Its own blank as it is folded then, and that of its sleeve.
    pub blanks: Vec<Blank>,
}

/// A sleeve to be cut.
#[derive(Debug, Clone, Copy, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SleeveAnswer {
    /// Inside it, along its opening.
    pub inside_length_mm: f64,
    /// Inside it, across its opening.
    pub inside_width_mm: f64,
    /// From its open edge to its scores.
    pub wall_mm: f64,
    /// Of its blank.
    pub width_mm: f64,
    /// Of its blank.
    pub height_mm: f64,
    /// Of its outline.
    pub area_m2: f64,
}

/// What becomes of its depth.
enum Deep {
    Cut(DepthCut),
    Sleeve(SleeveAnswer, Box<Blank>),
    Refused(NoWay),
}

impl SavedCartonSum {
    fn carton(&self) -> SavedCarton {
        let [length, width, height, caliper] = [
            self.length_mm,
            self.width_mm,
            self.height_mm,
            self.caliper_mm,
        ]
        .map(Length::mm);
        SavedCarton(BoxSize {
            length,
            width,
            height,
            caliper,
        })
    }

    fn deep(&self, to: Length, allowances: &Allowances) -> Deep {
        let carton = self.carton();
        if to <= carton.0.height {
            return match carton.cut_to_depth(to, allowances) {
                Ok(cut) => Deep::Cut(cut),
                Err(no_way) => Deep::Refused(no_way),
            };
        }
        let caliper = Length::mm(self.sleeve_caliper_mm.unwrap_or(self.caliper_mm));
        match carton.made_deeper(to, caliper) {
            Ok(sleeve) => {
                let (blank, inside) = (sleeve.blank(allowances), sleeve.inside());
                let answer = SleeveAnswer {
                    inside_length_mm: inside.length.as_mm(),
                    inside_width_mm: inside.width.as_mm(),
                    wall_mm: sleeve.wall().as_mm(),
                    width_mm: blank.width.as_mm(),
                    height_mm: blank.height.as_mm(),
                    area_m2: blank.area.as_m2(),
                };
                Deep::Sleeve(answer, Box::new(blank))
            }
            Err(no_way) => Deep::Refused(no_way),
        }
    }
}

impl Sum for SavedCartonSum {
    type Answer = SavedCartonAnswer;

    fn work(&self) -> Result<SavedCartonAnswer, Vec<Refusal>> {
        Refusals::default()
            .number("length_mm", self.length_mm, SIDE)
            .number("width_mm", self.width_mm, SIDE)
            .number("height_mm", self.height_mm, SIDE)
            .number("caliper_mm", self.caliper_mm, THIN)
            .if_given("to_height_mm", self.to_height_mm, SIDE)
            .if_given("to_length_mm", self.to_length_mm, SIDE)
            .if_given("sleeve_caliper_mm", self.sleeve_caliper_mm, THIN)
            .done()?;
        let allowances = Allowances::default();
        let carton = self.carton();
        let mut answer = SavedCartonAnswer {
            depth: None,
            depth_refused: None,
            length: None,
            length_refused: None,
            sleeve: None,
            blanks: vec![carton.blank(&allowances)],
        };
        match self
            .to_height_mm
            .map(|to| self.deep(Length::mm(to), &allowances))
        {
            Some(Deep::Cut(cut)) => {
                let less = SavedCarton(BoxSize {
                    height: carton.0.height - cut.below,
                    ..carton.0
                });
                answer.depth = Some(cut);
                answer.blanks = vec![less.blank(&allowances)];
            }
            Some(Deep::Sleeve(sleeve, blank)) => {
                answer.sleeve = Some(sleeve);
                answer.blanks.push(*blank);
            }
            Some(Deep::Refused(no_way)) => answer.depth_refused = Some(no_way.to_string()),
            None => {}
        }
        match self
            .to_length_mm
            .map(|to| carton.cut_to_length(Length::mm(to)))
        {
            Some(Ok(cut)) => answer.length = Some(cut),
            Some(Err(no_way)) => answer.length_refused = Some(no_way.to_string()),
            None => {}
        }
        Ok(answer)
    }
}

#[cfg(test)]
mod tests {
    use serde_json::json;

    use super::*;

    fn work(more: serde_json::Value) -> serde_json::Value {
        let mut sum =
            json!({ "length_mm": 800, "width_mm": 600, "height_mm": 200, "caliper_mm": 4 });
        json_patch::merge(&mut sum, &more);
        let sum: SavedCartonSum = serde_json::from_value(sum).expect("a sum");
        serde_json::to_value(sum.work().expect("in range")).expect("JSON")
    }

    #[test]
    fn a_carton_becomes_what_is_asked_of_it() {
        // As worked beside the carton: scores 80 below; a sleeve of board 3 179 to its scores, 2778.5 × 476.5; 90 out.
        let less = work(json!({ "to_height_mm": 120 }));
        assert_eq!(less["depth"]["below_mm"], 80.0);
        assert_eq!(less["sleeve"], json!(null));
        let more =
            work(json!({ "to_height_mm": 300, "sleeve_caliper_mm": 3, "to_length_mm": 650 }));
        assert_eq!(more["sleeve"]["wall_mm"], 179.0);
        assert_eq!(
            [&more["sleeve"]["width_mm"], &more["sleeve"]["height_mm"]],
            [2778.5, 476.5]
        );
        assert_eq!(more["length"]["take_out_mm"], 90.0);
        assert_eq!(more["blanks"].as_array().map(Vec::len), Some(2));
    }

    #[test]
    fn what_it_can_not_become_is_said() {
        let says = |more: serde_json::Value, key: &str| {
            work(more)[key].as_str().expect("a reason").to_owned()
        };
        assert_eq!(
            says(json!({ "to_height_mm": 190 }), "depth_refused"),
            "only 10 mm too deep: new scores would meet the old ones, so the space is filled"
        );
        assert_eq!(
            says(json!({ "to_height_mm": 500 }), "depth_refused"),
            "a sleeve takes it from 220 to 400 mm deep"
        );
        assert_eq!(
            says(json!({ "to_length_mm": 900 }), "length_refused"),
            "not long enough"
        );
    }
}
