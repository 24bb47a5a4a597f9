//! Papers as they were printed while their parcel was at work: what lies in the box is what its record keeps.

use hummock_store::Stored;
use serde::{Deserialize, Serialize};
use serde_json::{Value, json};
use sha2::{Digest as _, Sha256};
use uuid::Uuid;

use super::record::{KeptPaper, compressed, decompressed};
use crate::{
    desk::Desk,
    leaving::ToLeave,
    pictures::{Filed, hex},
    problem::Problem,
};

/// What names the file of a paper that was printed last.
struct PrintedKey<'a> {
    shipment: Uuid,
    paper: &'a str,
}

impl Filed for PrintedKey<'_> {
    fn name(&self) -> String {
        format!("printed/{}-{}.json.zst", self.shipment, self.paper)
    }
}

/// A paper as it was printed.
#[derive(Serialize, Deserialize)]
struct PrintedPaper {
    /// What it was printed for: another plan or another buyer has other papers.
    basis: String,
    paper: KeptPaper,
}

/// What of a plan tells it from another.
#[derive(Deserialize)]
struct Printed {
    fingerprint: Option<String>,
}

/// Returns what the papers of a shipment are for. That it was weighed, ticked or booked since makes no other paper of one that was printed.
fn basis(leaves: &ToLeave) -> String {
    let Stored {
        inputs, computed, ..
    } = &leaves.stored;
    let worked: Option<Printed> = computed.worked.parts();
    let fingerprint = worked.and_then(|worked| worked.fingerprint);
    let mut inputs = json!(inputs);
    if let Value::Object(fields) = &mut inputs {
        for follows in ["sending", "after", "packed", "parcel", "settled"] {
            fields.remove(follows);
        }
    }
    let all = json!([inputs, fingerprint, leaves.facts.settings]);
    hex(&Sha256::digest(all.to_string()))
}

impl Desk {
    /// Keeps a paper of a shipment at work as it was printed; it is printed all the same where it can't be kept.
    pub(crate) async fn keep_printed(
        &self,
        leaves: &ToLeave,
        key: &str,
        (paper, document): (KeptPaper, &[u8]),
    ) {
        if leaves.live().is_none() {
            return;
        }
        let printed = PrintedPaper {
            basis: basis(leaves),
            paper: paper.printed_as(document),
        };
        let key = PrintedKey {
            shipment: leaves.stored.id,
            paper: key,
        };
        let bytes = compressed(&printed);
        let kept = self.app.pictures.keep(self.studio(), &key, bytes.into());
        if let Err(error) = kept.await {
            tracing::warn!(%error, "a paper that was printed can't be kept");
        }
    }

    /// Returns a paper as it was printed last, if it is the parcel's as it stands.
    pub(super) async fn printed_last(
        &self,
        leaves: &ToLeave,
        key: &str,
    ) -> Result<Option<KeptPaper>, Problem> {
        let key = PrintedKey {
            shipment: leaves.stored.id,
            paper: key,
        };
        let found = self.app.pictures.read(self.studio(), &key).await?;
        let printed: Option<PrintedPaper> = found
            .and_then(|bytes| decompressed(&bytes))
            .and_then(|text| serde_json::from_slice(&text).ok());
        Ok(printed
            .filter(|printed| printed.basis == basis(leaves))
            .map(|printed| printed.paper))
    }

    /// Takes away what was printed of a parcel whose record holds it.
    pub(super) async fn forget_printed(&self, shipment: Uuid, papers: impl Iterator<Item = &str>) {
        for paper in papers {
            let key = PrintedKey { shipment, paper };
            self.app.pictures.forget(self.studio(), &key).await;
        }
    }
}
