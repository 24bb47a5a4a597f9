//! The schools: questions that practitioners answer differently, each with its sides explained.
//!
//! They are declared once, here, and feed the rules, the choices of a shipment, the settings and the
//! documents.

use serde::{Deserialize, Serialize};

/// A question with its schools.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SchoolQuestion {
    /// Its key in the rules.
    pub key: &'static str,
    /// What is asked.
    pub question: &'static str,
    /// The schools, the default one first.
    pub schools: &'static [School],
    /// Whether it is one of the few that change most everyday pieces, which the pages ask before the others.
    pub asked_first: bool,
}

/// One answer to a question.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct School {
    /// Its key in the rules.
    pub key: &'static str,
    /// What people call it.
    pub name: &'static str,
    /// Why somebody works that way, in one sentence.
    pub why: &'static str,
}

/// Whether a question bears a mark.
const fn marked(mark: &str) -> bool {
    !mark.is_empty()
}

macro_rules! schools {
    ($(
        $(#[$doc:meta])*
        $field:ident: $type:ident, $question:literal $($first_of_all:ident)? {
            $first:ident $first_key:literal: $first_name:literal, $first_why:literal;
            $($option:ident $key:literal: $name:literal, $why:literal;)+
        }
    )*) => {
        $(
            $(#[$doc])*
            #[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
            #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
            #[serde(rename_all = "snake_case")]
            pub enum $type {
                #[doc = $first_why]
                #[default]
                $first,
                $(
                    #[doc = $why]
                    $option,
                )+
            }

            impl $type {
                /// Every school of this question, the default one first.
                pub const ALL: &[Self] = &[Self::$first, $(Self::$option,)+];
            }
        )*

        /// The school that a studio follows in every question.
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        #[serde(default)]
        pub struct Schools {
            $(
                #[doc = $question]
                pub $field: $type,
            )*
        }

        /// The questions in which a shipment follows another school than the house.
        #[derive(Debug, Clone, Copy, PartialEq, Eq, Default, Serialize, Deserialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        #[serde(default, deny_unknown_fields)]
        pub struct SchoolChoices {
            $(
                #[doc = $question]
                #[serde(skip_serializing_if = "Option::is_none")]
                pub $field: Option<$type>,
            )*
        }

        impl Schools {
            /// Returns these schools with those that a shipment follows instead.
            #[must_use]
            pub fn with(self, choices: SchoolChoices) -> Self {
                Self { $($field: choices.$field.unwrap_or(self.$field),)* }
            }
        }

        impl Schools {
            /// Returns the choices that lead from other schools to these.
            #[must_use]
            pub fn instead_of(self, others: Self) -> SchoolChoices {
                SchoolChoices { $($field: (self.$field != others.$field).then_some(self.$field),)* }
            }
        }

        impl SchoolChoices {
            /// Returns these, and where they say nothing, others.
            #[must_use]
            pub fn or(self, others: Self) -> Self {
                Self { $($field: self.$field.or(others.$field),)* }
            }

            /// Tells whether nothing is chosen otherwise.
            #[must_use]
            pub fn is_empty(&self) -> bool {
                *self == Self::default()
            }
        }

        /// Every question with its schools, in the order of the work.
        pub const SCHOOLS: &[SchoolQuestion] = &[
            $(SchoolQuestion {
                key: stringify!($field),
                question: $question,
                schools: &[
                    School { key: $first_key, name: $first_name, why: $first_why },
                    $(School { key: $key, name: $name, why: $why },)+
                ],
                asked_first: false $(|| marked(stringify!($first_of_all)))?,
            },)*
        ];
    };
}

schools! {
    /// How much padding goes around a piece.
    padding: Padding, "How much padding?" first {
        Standard "standard": "Standard", "Two wraps at right angles and a filled box hold what most journeys do.";
        Lean "lean": "Lean", "One wrap keeps weight and waste low; losses are rare, and cover pays for them.";
        Generous "generous": "Generous", "A turn more each way, the canvas back filled and foam at the corners: nothing is left to luck.";
    }
    /// How closely a box fits.
    fit: Fit, "How closely does the box fit?" first {
        Filled "filled": "A little room, filled", "The fill gives way on impact, and the buyer gets in without a knife.";
        Snug "snug": "Snug", "Without spare room nothing moves, and the parcel is smaller.";
    }
    /// What lies against the art.
    contact: ContactRule, "What touches the art?" {
        Glassine "glassine": "Glassine or acid-free tissue", "Smooth, thin and acid-free: archives use it on paper and cured paint.";
        Parchment "parchment": "Baking parchment or waxed paper", "Silicone or wax doesn't stick to slightly soft paint, and every kitchen has it.";
    }
    /// Which pieces get a board in front.
    front_board: FrontBoard, "A board in front before the cushion?" {
        Always "always": "Always", "A board takes the knocks that pass the box.";
        CanvasOnly "canvas_only": "Stretched canvas only", "Glass, panels and frames are stiff enough by themselves; card is weight.";
    }
    /// Which pieces get a board behind.
    back_board: BackBoard, "A board behind as well?" {
        Canvas "canvas": "Stretched canvas only", "Its back is as soft as its face; other pieces have a back of their own.";
        Always "always": "Always", "A parcel lies on either side, and hardware stands off the back.";
        Never "never": "Never", "The bars and the fill behind are enough.";
    }
    /// How large a face board is.
    board_fit: BoardFit, "How large is a face board?" {
        ByMaterial "by_material": "Proud in card, exact in stiff board", "Card is cut to meet a knock before the frame does; stiff board is cut to bear it.";
        Proud "proud": "Always proud", "The board's edge, not the frame, takes the knock.";
        Exact "exact": "Always exact", "A flush board makes a smaller parcel.";
    }
    /// What goes around the corners.
    corners: CornerStyle, "What protects the corners?" {
        CardPockets "card_pockets": "Folded card pockets", "Folded to the piece's depth from offcuts.";
        SlipOn "slip_on": "Bought slip-on corners", "Quicker to set, where one fits the depth.";
    }
    /// What holds a piece without corners.
    shaped: ShapedHold, "What holds a round, oval or arched piece?" {
        Cradle "cradle": "Chocks on a board", "Chocks at its bearing points touch it at a few places, and the board carries it.";
        Rim "rim": "Foam around its rim", "Quicker than glued chocks, where the rim itself can bear a knock.";
    }
    /// How much plastic is used.
    plastic: PlasticRule, "How much plastic?" first {
        NoRule "no_rule": "Where it works best", "Film and plastic tape keep water out; the plan counts their grams.";
        Least "least": "As little as possible", "Paper inside the cushion and paper tape on the box, wherever paper works as well.";
    }
    /// Which tapes are used.
    tape: TapeRule, "Which tape?" first {
        PaperInside "paper_inside": "Paper inside, strong outside", "Paper tape peels from paper and card; plastic or filament holds the box.";
        PlasticThroughout "plastic_throughout": "Strong plastic throughout", "One roll on the bench, and nothing comes off on the way.";
        Masking "masking": "Masking tape inside", "The buyer sees what to peel, and it comes off card by hand.";
    }
    /// Which box is made where nobody chose one.
    box_style: BoxRule, "Which box by default?" {
        Cheapest "cheapest": "The cheapest that is as safe", "Board, work and carriage together: another style is taken where it saves more than cents and nothing gets riskier.";
        Usual "usual": "Always the usual one", "A familiar box is cut without thinking; other styles can still be chosen.";
    }
    /// How a box is sealed.
    seal: SealRule, "How is the box sealed?" first {
        H "h": "In an H", "A strip over the opening and one over each end are enough for such a box.";
        EverySeam "every_seam": "Every seam and edge", "Nothing catches on a belt, and a wet floor finds no bare edge.";
        Covered "covered": "Every seam, and the narrow sides whole", "It may stand on a wet floor on any of its narrow sides.";
    }
    /// What a sheet is rolled on.
    roll_core: CoreRule, "What is a sheet rolled on?" {
        Core "core": "A core", "A piece of tube keeps the roll round and its first turn free of creases.";
        NoCore "no_core": "Nothing", "The roll holds itself, and the core's weight is saved.";
    }
    /// What stands along the edges in the box, where something does.
    edges: EdgeRule, "What cushions the edges when fill isn't enough?" {
        PaperRolls "paper_rolls": "Rolls of paper", "Loose rolls cushion and spring back; they cost a few sheets and can be recycled.";
        Springs "springs": "Springs of folded card", "Offcuts folded in a zigzag hold an even gap all along the edge.";
        Skirt "skirt": "A skirt of wrap", "One strip, folded lengthwise, is quickly laid around and goes in with the piece.";
    }
    /// What a parcel looks like.
    outside: OutsideRule, "What does the parcel look like?" first {
        Plain "plain": "Plain", "A plain parcel doesn't show its value.";
        Dressed "dressed": "Dressed in paper", "Paper and the studio's mark greet the buyer; ribbon goes inside, where nothing catches.";
    }
    /// Which labels go on a parcel that a carrier takes.
    marks: MarksRule, "Which marks outside?" first {
        All "all": "Every mark that fits the piece", "Marks show the top edge, the face and glass, and say keep dry and upright.";
        Few "few": "Up, and what breaks", "Two arrows and a glass are read; more labels are not.";
        None "none": "None", "Some packers find that marks invite rough handling and theft.";
    }
    /// Whether the piece is wrapped before its box is cut.
    cutting: CuttingRule, "Wrap first, or cut first?" {
        WrapFirst "wrap_first": "Wrap, measure, then cut the box", "Tape, a fold and a generous turn make a wrapped piece thicker than any sum; the box is cut to what the tape reads.";
        BoxFirst "box_first": "Cut everything from the sums", "Several shipments are cut in one go, and the fill takes up the difference.";
    }
    /// How like pieces face in one box.
    facing: Facing, "Like pieces in one box?" {
        Inward "inward": "Faces inward, a board between", "Each protects the other's face, and backs take the knocks.";
        BacksTogether "backs_together": "Backs together, a sheet between", "No face lies near another, and the outer boards are the stiffest.";
    }
    /// What is done with large pieces.
    large: LargePieces, "Large pieces?" {
        PackThem "pack_them": "Pack them here", "A studio that knows the piece packs it best; the plan warns past its limits.";
        HandOver "hand_over": "Hand them over", "Past the limits a crating service has the tools, the van and the cover.";
    }
    /// How much a parcel is covered for.
    cover: CoverRule, "How much cover?" first {
        Full "full": "Full value, always", "A loss never costs more than the excess.";
        Included "included": "Only the included cover", "Losses are rare, and the premium is sure.";
        WherePays "where_pays": "Where it pays back", "Cover is bought where it pays back more than it costs on average.";
    }
    /// What the buyer pays for sending.
    charge: ChargeRule, "What does the buyer pay for sending?" {
        WithMaterials "with_materials": "Carriage and materials", "Materials are paid for once.";
        AtCost "at_cost": "The carrier's price", "Buyers know what carriers take, and ask no questions.";
        WithTime "with_time": "Carriage, materials and time", "Packing well is work, and the studio lives on it.";
        Flat "flat": "A flat sum", "The buyer knows it before asking, and over a year it evens out.";
        Included "included": "Nothing: it is in the price", "A price with sending in it sells more easily.";
    }
    /// What saved material costs.
    reused: ReusedRule, "What does saved material cost?" {
        Nothing "nothing": "Nothing", "It was paid for once; its weight still counts.";
        AsNew "as_new": "As much as new", "The next sheet must be bought when this one is used.";
    }
    /// How a loose canvas travels.
    loose_canvas: LooseCanvasRule, "A canvas off its bars?" {
        Rolled "rolled": "Rolled, face out", "Paint stretches rather than creases, and a tube is cheap to send.";
        Flat "flat": "Flat between boards", "It never has to lie flat again, and thick paint is not bent.";
    }
    /// How loose paper travels.
    loose_paper: LoosePaperRule, "Loose sheets of paper?" {
        Flat "flat": "Flat between boards", "They arrive as they left, ready to frame.";
        Rolled "rolled": "Rolled in a tube", "A large sheet goes for the price of a small one.";
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_school_is_explained_and_its_key_is_what_is_written() {
        let written = serde_json::to_value(Schools::default()).expect("schools are JSON");
        for question in SCHOOLS {
            assert!(question.question.ends_with('?'), "{}", question.key);
            assert!(question.schools.len() > 1, "{}", question.key);
            for school in question.schools {
                assert!(school.why.ends_with('.'), "{} {}", question.key, school.key);
                let choice = serde_json::json!({ question.key: school.key });
                let read: SchoolChoices = serde_json::from_value(choice.clone()).expect("a school");
                assert_eq!(serde_json::to_value(read).expect("JSON"), choice);
            }
            assert_eq!(written[question.key], question.schools[0].key);
        }
    }

    #[test]
    fn a_shipment_follows_another_school_only_where_it_says_so() {
        let house = Schools {
            fit: Fit::Snug,
            ..Schools::default()
        };
        let choices = SchoolChoices {
            padding: Some(Padding::Lean),
            ..SchoolChoices::default()
        };
        let both = house.with(choices);
        assert_eq!((both.fit, both.padding), (Fit::Snug, Padding::Lean));
    }
}
