//! What the papers of a parcel say. Each is plain words and numbers; the program that makes documents only sets them.

mod about;
mod certificate;
mod claim_file;
mod condition;
mod crating;
mod customs;
mod label;
mod letters;
mod list;
mod materials;
mod message;
mod slip;
mod thank_you;

pub use about::{Ends, Letterhead};
pub use certificate::{Card, Certificate, certificates};
pub use claim_file::{ClaimFile, ClaimSource};
pub use condition::{Condition, PictureLine, condition};
pub use crating::{CratingBrief, crating_brief};
pub use customs::{Customs, customs};
pub use label::{HandlingMark, Label, LabelSource, handling_marks, label};
pub use letters::{PRINTED_LETTERS, letters_lacking};
pub use list::{HandOverList, HandOverRow};
pub use materials::{MaterialsList, MaterialsRow};
pub use message::{Message, MessageSource, message};
pub use slip::{Slip, slip};
pub use thank_you::{ThankYou, thank_you};
