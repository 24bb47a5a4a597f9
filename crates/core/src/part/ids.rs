//! Ids of parts and of tape strips. Stored data and comparisons use the key of an id; people read its words.

use std::fmt::{self, Display, Formatter};

use serde::{Deserialize, Deserializer, Serialize, Serializer};

/// Ids with a key that never changes, since ticks and cut marks are kept by it, and with words that may.
macro_rules! ids {
    ($(#[$about:meta])* $id:ident { $($variant:ident = $key:literal $(=> $words:literal)?,)* }) => {
        $(#[$about])*
        #[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord, Hash)]
        #[allow(missing_docs, reason = "each is what its key says")]
        pub enum $id { $($variant,)* }

        impl $id {
            /// All of them.
            pub const ALL: &[Self] = &[$(Self::$variant,)*];

            /// Returns what it is kept by, the same for all time.
            #[must_use]
            pub const fn key(self) -> &'static str {
                match self { $(Self::$variant => $key,)* }
            }

            /// Returns the words for it.
            #[must_use]
            pub const fn name(self) -> &'static str {
                match self { $(Self::$variant => ids!(@words $key $(, $words)?),)* }
            }

            /// Returns what is kept by a key.
            #[must_use]
            pub fn of_key(key: &str) -> Option<Self> {
                Self::ALL.iter().copied().find(|id| id.key() == key)
            }
        }

        /// As people read it.
        impl Display for $id {
            fn fmt(&self, into: &mut Formatter<'_>) -> fmt::Result {
                into.pad(self.name())
            }
        }

        /// As people read it.
        impl Serialize for $id {
            fn serialize<S: Serializer>(&self, into: S) -> Result<S::Ok, S::Error> {
                into.serialize_str(self.name())
            }
        }
    };
    (@words $key:literal) => { $key };
    (@words $key:literal, $words:literal) => { $words };
}

ids! {
    /// What a part is in its layer.
    PartId {
        InnerBox = "inner box",
        OuterBox = "outer box",
        Box = "box",
        InnerTray = "inner tray",
        OuterTray = "outer tray",
        Tray = "tray",
        InnerLid = "inner lid",
        OuterLid = "outer lid",
        Lid = "lid",
        InnerFolder = "inner folder",
        OuterFolder = "outer folder",
        Folder = "folder",
        OuterHalfOfInnerBox = "outer half of the inner box",
        OuterHalfOfOuterBox = "outer half of the outer box",
        OuterHalf = "outer half",
        InnerHalfOfInnerBox = "inner half of the inner box",
        InnerHalfOfOuterBox = "inner half of the outer box",
        InnerHalf = "inner half",
        Film = "film",
        NameTag = "name tag",
        Bag = "bag",
        Sachet = "sachet",
        SheetGluedInside = "sheet glued inside",
        BoardBetween = "board between",
        CaseFace = "case face",
        Cleat = "cleat",
        FlatPlate = "flat plate",
        SheetBehind = "sheet behind",
        SheetBeside = "sheet beside",
        TravelCase = "travel case",
        LiningOfAFace = "lining of a face",
        LiningAlong = "lining along",
        LiningAcross = "lining across",
        UpperAndLowerBar = "upper and lower bar",
        BarBeside = "bar beside",
        CornerPocket = "corner pocket",
        CradleBoard = "cradle board",
        Chock = "chock",
        SheetToRoll = "sheet to roll",
        Spring = "spring",
        Skirt = "skirt",
        FrontBoard = "front board",
        BackBoard = "back board",
        Board = "board",
        PaperForPockets = "paper for pockets",
        Label = "label",
        StudiosMark = "studio's mark",
        Pad = "pad",
        EdgePad = "edge pad",
        LongBar = "long bar",
        ShortBar = "short bar",
        RimStrip = "rim strip",
        Sleeve = "sleeve",
        Patch = "patch",
        SecondCarton = "second carton",
        Carton = "carton",
        BoardBehind = "board behind",
        LongStrip = "long strip",
        ShortStrip = "short strip",
        OverHardware = "over hardware",
        Wrap = "wrap",
        InsetWrap = "inset wrap",
        Tape = "tape",
        Fill = "fill",
        Tube = "tube",
        Core = "core",
        Mailer = "mailer",
        Corner = "corner",
        Cap = "cap",
        SheetBetweenBacks = "sheet between backs",
        ContactSheet = "contact sheet",
        Interleaf = "interleaf",
        FillToLayFirst = "fill to lay first",
        TapeForPadsOnTheWalls = "tape for pads on the walls",
        OuterPaper = "outer paper",
        PaddingSheet = "padding sheet",
        FoldedPad = "folded pad",
        FillForPads = "fill for a pad behind" => "fill for pads",
        TapeForPads = "tape for the pad behind" => "tape for pads",
        TapeForPadsOnTheUpperHalf = "tape for pads on the upper half",
        LongSideOfTheFrame = "long side of the frame",
        ShortSideOfTheFrame = "short side of the frame",
        AcrossAFace = "across a face",
        BetweenPieces = "between pieces",
        OverSeveral = "over several",
        CaseOfPaper = "case of paper",
        PadForTheFirstEnd = "pad for the first end",
        PadForTheLastEnd = "pad for the last end",
        SheetToBeSlitInTwo = "sheet, to be slit in two",
        Lining = "lining",
        LiningToSetLast = "lining to set last",
        EdgeProfile = "edge profile",
        Screw = "screw",
        CornerBrace = "corner brace",
        Handle = "handle",
        Foot = "foot",
        Glue = "glue" => "gram of glue",
        LowerHalf = "lower half",
        UpperHalf = "upper half",
        Middle = "middle",
        LowerCorner = "lower corner",
        UpperCorner = "upper corner",
        FloorMiddle = "floor middle",
        SideMiddle = "side middle",
        TopMiddle = "top middle",
        SecondMailer = "second mailer",
    }
}

ids! {
    /// What strips of tape close, cover or hold.
    StripId {
        OverTheFloor = "over the floor",
        OverTheOpening = "over the opening",
        OverEachClosedEnd = "over each closed end",
        AlongTheJoint = "along the joint",
        AtTheCorners = "at the corners",
        AroundTheLid = "around the lid",
        AtTheTraysCorners = "at the tray's corners",
        AtTheLidsCorners = "at the lid's corners",
        AroundTheLidsEdge = "around the lid's edge",
        OverTheMiddle = "over the middle",
        OverBothEnds = "over both ends",
        AlongTheJoints = "along the joints",
        AroundWhereTheHalvesMeet = "around, where the halves meet",
        OverTheNarrowSides = "over the narrow sides",
        AtBothEndsOfTheTag = "at both ends of the tag",
        OverTheOpenSide = "over the open side",
        AlongTheFold = "along the fold",
        AlongTheOpening = "along the opening",
        OverEachScoreThatWasCut = "over each score that was cut",
        FromBarToBar = "from bar to bar",
        OnTheFlapsBehind = "on the flaps behind",
        AlongEachLapOutside = "along each lap, outside",
        FromPocketToPocket = "from pocket to pocket",
        FromEachChockToTheBoard = "from each chock to the board",
        AtBothEndsOfEach = "at both ends of each",
        OverTheEdges = "over the edges",
        AlongBothShortEdges = "along both short edges",
        AlongBothLongEdges = "along both long edges",
        DownTheGlass = "down the glass",
        AcrossTheGlass = "across the glass",
        FromCornerToCorner = "from corner to corner",
        AlongEachLap = "along each lap",
        AroundEachEnd = "around each end",
        AtItsFourSides = "at its four sides",
        OverEachPad = "over each pad",
        FromPadToPad = "from pad to pad",
        FromStripToStrip = "from strip to strip",
        OnceRoundTheFoam = "once round the foam",
        AroundTheBandAtEachEnd = "around the band at each end",
        AroundEachCap = "around each cap",
        AlongTheLap = "along the lap",
        AlongEachOpenEdge = "along each open edge",
        AtBothEndsOfEachStrip = "at both ends of each strip",
        OverTheFloorsEnds = "over the floor's ends",
        OverItsEnds = "over its ends",
        AlongTheEdges = "along the edges",
        AroundThemSideToSide = "around them, side to side",
        AroundThemTopToBottom = "around them, top to bottom",
        OnceAroundSideToSide = "once around, side to side",
        OnceAroundTopToBottom = "once around, top to bottom",
        AlongTheSeam = "along the seam",
        AlongBothRolledEnds = "along both rolled ends",
        AroundWhatWasCutAndJoined = "around what was cut and joined",
        AlongTheNewJoint = "along the new joint",
        OverEachPaperCorner = "over each paper corner",
        ThroughTheBoardBehind = "through the board behind",
        ThroughTheBackBoard = "through the back board",
        OverThePadInFront = "over the pad in front",
        OverThePadBehind = "over the pad behind",
        OverThePadOnTheFrontWall = "over the pad on the front wall",
        OverThePadsAtBothSides = "over the pads on both walls" => "over the pads at both sides",
        OverThePadsBesideTheUpperHalf = "over the pads beside the upper half",
        AcrossTheOpening = "across the opening",
        AroundTheLap = "around the lap",
        AroundTheFirstCap = "around the first cap",
        AroundTheLastCap = "around the last cap",
        AcrossTheLowerPair = "across the lower pair",
        AcrossTheUpperPair = "across the upper pair",
        AlongTheFloorMiddle = "along both edges of the floor middle",
        AlongTheSideMiddles = "along both edges of each side middle",
        AlongTheTopMiddle = "along both edges of the top middle",
        AroundTheTraysLengthwise = "around both trays, lengthwise",
        AroundTheTraysAcross = "around both trays, crosswise",
        AlongTheLapInside = "along each lap, inside",
    }
}

/// A part as answers tell it.
#[derive(Debug, Clone, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct NamedPart {
    /// Its key, which never changes.
    pub part: &'static str,
    /// The words for it.
    pub name: &'static str,
}

#[allow(clippy::trivially_copy_pass_by_ref, reason = "as serde asks for it")]
pub(crate) fn part_and_name<S: Serializer>(id: &PartId, into: S) -> Result<S::Ok, S::Error> {
    let (part, name) = (id.key(), id.name());
    NamedPart { part, name }.serialize(into)
}

/// A part as it is kept: by its key.
pub(crate) mod by_key {
    use super::{Deserialize, Deserializer, PartId, Serialize, Serializer};

    #[allow(clippy::ref_option, reason = "as serde asks for it")]
    pub(crate) fn serialize<S: Serializer>(
        id: &Option<PartId>,
        into: S,
    ) -> Result<S::Ok, S::Error> {
        id.map(PartId::key).serialize(into)
    }

    pub(crate) fn deserialize<'de, D: Deserializer<'de>>(
        from: D,
    ) -> Result<Option<PartId>, D::Error> {
        let key = Option::<String>::deserialize(from)?;
        Ok(key.and_then(|key| PartId::of_key(&key)))
    }
}

/// A part of a box where there is one, and the same part of the inner and the outer box where there are two.
const TWO_BOXES: [(PartId, [PartId; 2]); 6] = [
    (PartId::Box, [PartId::InnerBox, PartId::OuterBox]),
    (PartId::Tray, [PartId::InnerTray, PartId::OuterTray]),
    (PartId::Lid, [PartId::InnerLid, PartId::OuterLid]),
    (PartId::Folder, [PartId::InnerFolder, PartId::OuterFolder]),
    (
        PartId::OuterHalf,
        [PartId::OuterHalfOfInnerBox, PartId::OuterHalfOfOuterBox],
    ),
    (
        PartId::InnerHalf,
        [PartId::InnerHalfOfInnerBox, PartId::InnerHalfOfOuterBox],
    ),
];

impl PartId {
    /// Returns the same part of the inner and of the outer box, where there are two; itself twice where boxes have no such part.
    pub(crate) fn of_two_boxes(self) -> [Self; 2] {
        let known = TWO_BOXES.iter().find(|(one, _)| *one == self);
        known.map_or([self; 2], |(_, two)| *two)
    }

    /// Returns the same part of a box that is the only one, as its blank names it.
    #[must_use]
    pub fn of_one_box(self) -> Self {
        let known = TWO_BOXES.iter().find(|(_, two)| two.contains(&self));
        known.map_or(self, |(one, _)| *one)
    }
}

#[cfg(test)]
mod tests {
    use std::collections::BTreeSet;

    use super::*;

    /// It kills: two parts, or two kinds of strips, with one key.
    #[test]
    fn no_two_have_one_key() {
        for id in PartId::ALL {
            assert_eq!(PartId::of_key(id.key()), Some(*id));
        }
        let keys: BTreeSet<&str> = StripId::ALL.iter().map(|id| id.key()).collect();
        assert_eq!(keys.len(), StripId::ALL.len());
    }

    /// It kills: an inner and an outer box exchanged.
    #[test]
    fn a_part_of_two_boxes_is_the_same_part_of_one() {
        for (one, two) in TWO_BOXES {
            assert_eq!(one.of_two_boxes(), two);
            assert_eq!(two.map(PartId::of_one_box), [one; 2]);
            assert!(two[0].key().contains("inner box") || two[0].key().starts_with("inner "));
            assert!(two[1].key().contains("outer box") || two[1].key().starts_with("outer "));
        }
        assert_eq!(PartId::Chock.of_two_boxes(), [PartId::Chock; 2]);
        assert_eq!(PartId::Chock.of_one_box(), PartId::Chock);
    }
}
