//! The document that holds what a parcel was when it left, and how it is written.

use std::{collections::BTreeMap, io::Read as _};

use base64::{Engine as _, prelude::BASE64_STANDARD};
use hummock_core::shipment::ShipmentInputs;
use hummock_store::{PastState, PictureKey, RecordKey};
use ruzstd::{
    decoding::StreamingDecoder,
    encoding::{CompressionLevel, compress_to_vec},
};
use serde::{Deserialize, Serialize};
use serde_json::{Value, value::RawValue};
use sha2::{Digest as _, Sha256};
use uuid::Uuid;

use crate::leaving::Facts;

/// The shape of the document. A later one adds fields, so that every program reads what it knows of.
const SHAPE: u32 = 1;
/// The largest size of an unpacked record; a longer file is refused as damaged.
const LONGEST: u64 = 64 << 20;

/// What a parcel was when it left.
#[derive(Debug, Serialize, Deserialize)]
pub(crate) struct Record {
    shape: u32,
    /// Its rows as they were then.
    pub(super) rows: Rows,
    /// What its papers and pages need beside its inputs.
    pub(crate) facts: Facts,
    /// What its pages and papers were told by the program of that day.
    #[serde(default)]
    pub(crate) told: Told,
    /// The studio's own mark, in Base64.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    mark: Option<String>,
}

/// The rows of a parcel, as PostgreSQL writes them.
#[derive(Debug, Serialize, Deserialize)]
pub(super) struct Rows {
    pub(super) shipment: Row,
    #[serde(default)]
    pub(super) states: Vec<PastState>,
    #[serde(default)]
    edits: Vec<Uuid>,
    #[serde(default)]
    bookings: Vec<Value>,
    #[serde(default)]
    taken: Value,
}

/// The row of a shipment: what is read of it, and the rest as it stands.
#[derive(Debug, Serialize, Deserialize)]
pub(super) struct Row {
    pub(super) id: Uuid,
    pub(super) at_state: i32,
    #[serde(default)]
    pub(super) worked: Value,
    #[serde(flatten)]
    others: BTreeMap<String, Value>,
}

/// What pages and papers showed of a parcel on the day it left; its fields are empty if an earlier program kept none of it.
#[derive(Debug, Default, Serialize, Deserialize)]
#[serde(default)]
pub(crate) struct Told {
    /// The steps of its packing.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) packing: Option<Value>,
    /// How far it was to other prices, and what its buyer paid.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) pricing: Option<Value>,
    /// What was looked at before it left.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) leaving: Option<Value>,
    /// What each of its papers says.
    pub(crate) papers: BTreeMap<String, KeptPaper>,
    /// Its drawings.
    pub(crate) drawings: BTreeMap<String, Vec<Value>>,
    /// The rules and the materials that it was planned by.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub(crate) planned_by: Option<PlannedBy>,
}

/// What a plan follows from beside its inputs.
#[derive(Debug, Serialize, Deserialize)]
pub(crate) struct PlannedBy {
    pub(crate) rules: Value,
    /// Those that are in the parcel.
    pub(crate) materials: Vec<Value>,
}

/// What a paper says.
#[derive(Debug, Clone, Serialize, Deserialize)]
pub(crate) struct KeptPaper {
    pub(crate) kind: String,
    pub(crate) says: Value,
    /// The photographs in it.
    #[serde(default, skip_serializing_if = "Vec::is_empty")]
    pub(crate) photographs: Vec<PrintedPhotograph>,
    /// The document, where it was printed before the parcel left, in Base64.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    document: Option<String>,
}

impl KeptPaper {
    pub(crate) const fn new(
        kind: String,
        says: Value,
        photographs: Vec<PrintedPhotograph>,
    ) -> Self {
        Self {
            kind,
            says,
            photographs,
            document: None,
        }
    }

    /// Returns it with the document that was made of it.
    pub(super) fn printed_as(self, document: &[u8]) -> Self {
        let document = Some(BASE64_STANDARD.encode(document));
        Self { document, ..self }
    }

    /// Returns the document that was printed, if it says just this.
    pub(crate) fn document(&self, says: &Value) -> Option<Vec<u8>> {
        let document = self.document.as_ref().filter(|_| self.says == *says)?;
        BASE64_STANDARD.decode(document).ok()
    }
}

/// A photograph in a paper.
#[derive(Debug, Clone, Serialize, Deserialize)]
pub(crate) struct PrintedPhotograph {
    id: Uuid,
    digest: Option<String>,
}

impl From<&PictureKey> for PrintedPhotograph {
    fn from(key: &PictureKey) -> Self {
        Self {
            id: key.id,
            digest: key
                .digest
                .as_ref()
                .map(|digest| BASE64_STANDARD.encode(digest)),
        }
    }
}

impl From<&PrintedPhotograph> for PictureKey {
    fn from(printed: &PrintedPhotograph) -> Self {
        let digest = printed.digest.as_ref();
        Self {
            id: printed.id,
            digest: digest.and_then(|digest| BASE64_STANDARD.decode(digest).ok()),
        }
    }
}

impl Record {
    pub(super) fn of(rows: Rows, facts: Facts, told: Told, mark: Option<&[u8]>) -> Self {
        Self {
            shape: SHAPE,
            rows,
            facts,
            told,
            mark: mark.map(|png| BASE64_STANDARD.encode(png)),
        }
    }

    /// Writes it, and returns what names its file with the bytes of it.
    pub(super) fn written(&self) -> (RecordKey, Vec<u8>) {
        let bytes = compressed(self);
        let key = RecordKey {
            shipment: self.rows.shipment.id,
            digest: Sha256::digest(&bytes).to_vec(),
        };
        (key, bytes)
    }

    /// Reads it; `None` if the file is not what its name says.
    pub(super) fn read(key: &RecordKey, bytes: &[u8]) -> Option<Self> {
        let text = text_of(key, bytes)?;
        let record: Self = serde_json::from_slice(&text).ok()?;
        (record.rows.shipment.id == key.shipment).then_some(record)
    }

    /// Returns the plan and the quotes that it left with, as they were written.
    pub(crate) const fn worked(&self) -> &Value {
        &self.rows.shipment.worked
    }

    /// Returns how its buyer unpacks it.
    pub(crate) fn unpacking(&self) -> Option<Value> {
        let handed = self.rows.shipment.others.get("handed")?;
        handed.get("unpacking").cloned()
    }

    /// Returns the inputs that it left with; `None` if they are not in it.
    pub(crate) fn inputs(&self) -> Option<ShipmentInputs> {
        let Rows {
            states, shipment, ..
        } = &self.rows;
        let stood = states.iter().find(|past| past.state == shipment.at_state)?;
        let schema = stood.schema.unsigned_abs();
        Some(ShipmentInputs::from_stored(schema, stood.inputs.clone()))
    }

    /// Returns the states before it left, the oldest first: they can be gone back to once it is taken back to work.
    pub(crate) fn history(&self) -> Vec<PastState> {
        let at = self.rows.shipment.at_state;
        let states = self.rows.states.iter();
        let before = states.filter(|past| past.state < at && !past.had_left());
        before.cloned().collect()
    }

    /// Returns the studio's own mark, as PNG.
    pub(crate) fn mark(&self) -> Option<Vec<u8>> {
        BASE64_STANDARD.decode(self.mark.as_ref()?).ok()
    }
}

/// Writes something as JSON, compressed.
pub(super) fn compressed(what: &impl Serialize) -> Vec<u8> {
    let text = serde_json::to_vec(what).expect("it can be written");
    compress_to_vec(text.as_slice(), CompressionLevel::Fastest)
}

/// Reads what was compressed so; `None` if it can't be read.
pub(super) fn decompressed(bytes: &[u8]) -> Option<Vec<u8>> {
    let mut text = Vec::new();
    let decoder = StreamingDecoder::new(bytes).ok()?;
    let read = decoder.take(LONGEST + 1).read_to_end(&mut text).ok()?;
    (read as u64 <= LONGEST).then_some(text)
}

/// Returns the text of a record; `None` if the file is not what its name says.
fn text_of(key: &RecordKey, bytes: &[u8]) -> Option<Vec<u8>> {
    if Sha256::digest(bytes).as_slice() != key.digest {
        return None;
    }
    decompressed(bytes)
}

/// Tells whether the file of a record is what its name says, and holds JSON.
pub(crate) fn opens(key: &RecordKey, bytes: &[u8]) -> bool {
    text_of(key, bytes).is_some_and(|text| serde_json::from_slice::<&RawValue>(&text).is_ok())
}
