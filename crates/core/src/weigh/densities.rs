//! What many readings say about the densities of the stores: a least-squares step, shown with its effect before it is taken.

use std::collections::BTreeMap;

use serde::Serialize;

use crate::{
    material::{Catalogue, MaterialClass, MaterialId},
    part::Take,
    plan::Plan,
    quantity::{Mass, Weight},
};

/// A parcel that was weighed as it was planned, taken apart by material.
#[derive(Debug, Clone, PartialEq)]
pub struct WeighedPlan {
    /// What it was.
    pub title: String,
    /// What the scale read.
    pub read: Mass,
    /// What no density has a part in: the piece, and whatever goes by count.
    pub rest: Weight,
    /// What each material weighs in it by the densities of now.
    pub by_material: BTreeMap<MaterialId, Mass>,
}

/// What the readings say.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Corrections {
    /// The materials on which they bear, those that change most first.
    pub materials: Vec<DensityRow>,
    /// Every parcel, with what it was planned at and would be.
    pub weighings: Vec<WeighingRow>,
    /// How far the parcels are off on average, now: the root of the mean square.
    #[serde(rename = "off_now_g")]
    pub off_now: Mass,
    /// The same with every change that is proposed.
    #[serde(rename = "off_then_g")]
    pub off_then: Mass,
}

/// A material and its density.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct DensityRow {
    /// The material.
    pub material: MaterialId,
    /// What it is called.
    pub name: String,
    /// Its shelf, as `boards`.
    pub class: &'static str,
    /// What its density is in, as `g/m²`.
    pub unit: &'static str,
    /// In the stores now.
    pub now: f64,
    /// As the readings have it.
    pub then: f64,
    /// How far that may be off.
    pub plus_minus: f64,
    /// How many parcels have it.
    pub weighings: u32,
    /// Whether the readings say enough: three parcels, and a change that is more than its doubt.
    pub proposed: bool,
}

/// A parcel among them.
#[derive(Debug, Clone, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct WeighingRow {
    /// What it was.
    pub title: String,
    /// What the scale read.
    #[serde(rename = "read_g")]
    pub read: Mass,
    /// By the densities of now.
    #[serde(rename = "planned_g")]
    pub planned: Mass,
    /// With every change that is proposed.
    #[serde(rename = "then_g")]
    pub then: Mass,
}

/// What a scale may be off by.
const SCALE_G: f64 = 10.0;
/// Fewer parcels say nothing about a material.
const LEAST_WEIGHINGS: u32 = 3;
/// A density goes no lower than this share of what it is, whatever the readings say.
const LEAST_SHARE: f64 = 0.2;

impl WeighedPlan {
    /// Takes a plan apart by what its materials weigh.
    #[must_use]
    pub fn of(title: String, plan: &Plan, read: Mass) -> Self {
        let mut by_material: BTreeMap<MaterialId, Mass> = BTreeMap::new();
        let mut rest = plan.piece_weight;
        for part in plan.layers.iter().flat_map(|layer| &layer.parts) {
            match part.take {
                Take::Each => rest.mass += part.mass,
                Take::Piece { .. } | Take::Run { .. } | Take::Loose { .. } => {
                    *by_material.entry(part.material.clone()).or_default() += part.mass;
                }
            }
        }
        Self {
            title,
            read,
            rest,
            by_material,
        }
    }

    fn planned(&self, factor: impl Fn(&MaterialId) -> f64) -> Mass {
        let by_material = self.by_material.iter();
        self.rest.mass
            + by_material
                .map(|(id, mass)| *mass * factor(id))
                .sum::<Mass>()
    }
}

/// Returns what readings say about the densities of the stores.
///
/// Every material has one factor, which is 1 give or take the doubt of its kind. What the parcels read is what their parts weigh by
/// these factors, give or take 10 g and the doubt of the piece; of all factors those are taken that leave the least sum of squares,
/// each square in units of its doubt. So a material on few parcels stays near what it was, and a piece that was only estimated
/// bears little on anything. Source: linear least squares with prior values.
#[must_use]
pub fn corrections(
    parcels: &[WeighedPlan],
    catalogue: &Catalogue,
    doubt_of: impl Fn(&MaterialId) -> f64,
) -> Corrections {
    let known = densities(catalogue);
    let ids: Vec<&MaterialId> = known.keys().collect();
    let place: BTreeMap<&MaterialId, usize> =
        ids.iter().enumerate().map(|(at, id)| (*id, at)).collect();
    let mut normal = Normal::new(ids.iter().map(|id| doubt_of(id)));
    let mut counts = vec![0_u32; ids.len()];
    for parcel in parcels {
        let row: Vec<(usize, f64)> = parcel
            .by_material
            .iter()
            .filter_map(|(id, mass)| Some((*place.get(id)?, mass.as_g())))
            .collect();
        for (at, _) in &row {
            counts[*at] += 1;
        }
        let miss = (parcel.read - parcel.planned(|_| 1.0)).as_g();
        normal.add(&row, miss, parcel.rest.plus_minus.as_g().hypot(SCALE_G));
    }
    let (moved, doubts) = normal.solved();
    let mut materials: Vec<DensityRow> = ids
        .iter()
        .enumerate()
        .filter(|(at, _)| counts[*at] > 0)
        .map(|(at, id)| {
            let shelf = &known[*id];
            let by = moved[at].max(LEAST_SHARE - 1.0);
            DensityRow {
                material: (*id).clone(),
                name: shelf.name.clone(),
                class: shelf.class.key(),
                unit: shelf.measure.1,
                now: shelf.density,
                then: rounded(shelf.density * (1.0 + by)),
                plus_minus: rounded(shelf.density * doubts[at]),
                weighings: counts[at],
                proposed: counts[at] >= LEAST_WEIGHINGS && by.abs() > doubts[at],
            }
        })
        .collect();
    let change = |row: &DensityRow| (row.then / row.now - 1.0).abs();
    materials.sort_by(|one, other| {
        (other.proposed, change(other))
            .partial_cmp(&(one.proposed, change(one)))
            .unwrap_or(std::cmp::Ordering::Equal)
            .then_with(|| one.material.cmp(&other.material))
    });
    let then: BTreeMap<&MaterialId, f64> = materials
        .iter()
        .filter(|row| row.proposed)
        .map(|row| (&row.material, row.then / row.now))
        .collect();
    let weighings: Vec<WeighingRow> = parcels
        .iter()
        .map(|parcel| WeighingRow {
            title: parcel.title.clone(),
            read: parcel.read,
            planned: parcel.planned(|_| 1.0),
            then: parcel.planned(|id| then.get(id).copied().unwrap_or(1.0)),
        })
        .collect();
    let off = |of: fn(&WeighingRow) -> Mass| {
        let squares = weighings
            .iter()
            .map(|row| (row.read - of(row)).as_g().powi(2));
        let count = weighings.len().max(1);
        #[expect(
            clippy::cast_precision_loss,
            reason = "there are a few hundred at most"
        )]
        Mass::g((squares.sum::<f64>() / count as f64).sqrt())
    };
    Corrections {
        off_now: off(|row| row.planned),
        off_then: off(|row| row.then),
        materials,
        weighings,
    }
}

/// A tenth is as fine as anybody reads a density.
fn rounded(density: f64) -> f64 {
    (density * 10.0).round() / 10.0
}

impl Catalogue {
    /// Returns the stores with other densities; those that there are not are passed over.
    #[must_use]
    pub fn with_densities(&self, densities: &BTreeMap<MaterialId, f64>) -> Self {
        let known = self::densities(self);
        let mut whole = self.clone();
        for (id, density) in densities {
            let Some(shelf) = known.get(id) else { continue };
            let mut material = shelf.material.clone();
            material[shelf.measure.0] = serde_json::json!(density);
            if let Ok(changed) = whole.with(shelf.class, material) {
                whole = changed;
            }
        }
        whole
    }
}

/// A material as it stands in the stores.
struct OnShelf {
    class: MaterialClass,
    name: String,
    material: serde_json::Value,
    /// The field of its density, and what that is in.
    measure: (&'static str, &'static str),
    density: f64,
}

/// The fields that are densities.
const MEASURES: [(&str, &str); 3] = [
    ("areal_density_g_m2", "g/m²"),
    ("density_kg_m3", "kg/m³"),
    ("linear_density_g_m", "g/m"),
];

fn densities(catalogue: &Catalogue) -> BTreeMap<MaterialId, OnShelf> {
    let mut known = BTreeMap::new();
    for class in MaterialClass::ALL {
        for material in catalogue.class(class) {
            let of = MEASURES
                .into_iter()
                .find_map(|measure| Some((measure, material[measure.0].as_f64()?)));
            if let (Some((measure, density)), Some(id)) = (of, material["id"].as_str())
                && density > 0.0
            {
                let shelf = OnShelf {
                    class,
                    name: material["name"].as_str().unwrap_or(id).to_owned(),
                    measure,
                    density,
                    material: material.clone(),
                };
                known.insert(MaterialId::new(id), shelf);
            }
        }
    }
    known
}

/// The normal equations of a least-squares fit with prior values of nothing.
struct Normal {
    /// Symmetric, and positive definite because of the prior values.
    matrix: Vec<Vec<f64>>,
    right: Vec<f64>,
}

impl Normal {
    fn new(doubts: impl Iterator<Item = f64>) -> Self {
        let doubts: Vec<f64> = doubts.map(|doubt| doubt.max(1e-6)).collect();
        let mut matrix = vec![vec![0.0; doubts.len()]; doubts.len()];
        for (at, doubt) in doubts.iter().enumerate() {
            matrix[at][at] = doubt.powi(-2);
        }
        Self {
            right: vec![0.0; doubts.len()],
            matrix,
        }
    }

    fn add(&mut self, row: &[(usize, f64)], miss: f64, doubt: f64) {
        let weight = doubt.powi(-2);
        for (at, mass) in row {
            self.right[*at] += mass * miss * weight;
            for (other, other_mass) in row {
                self.matrix[*at][*other] += mass * other_mass * weight;
            }
        }
    }

    /// Returns the values, and how far each may be off. By Cholesky's square root: three dozen lines of arithmetic that would
    /// otherwise bring a whole algebra into the first build.
    fn solved(&self) -> (Vec<f64>, Vec<f64>) {
        let size = self.right.len();
        let mut root = vec![vec![0.0; size]; size];
        for row in 0..size {
            for column in 0..=row {
                let done: f64 = (0..column).map(|k| root[row][k] * root[column][k]).sum();
                let left = self.matrix[row][column] - done;
                root[row][column] = if row == column {
                    left.max(f64::MIN_POSITIVE).sqrt()
                } else {
                    left / root[column][column]
                };
            }
        }
        let solve = |right: &[f64]| {
            let mut half = vec![0.0; size];
            for row in 0..size {
                let done: f64 = (0..row).map(|k| root[row][k] * half[k]).sum();
                half[row] = (right[row] - done) / root[row][row];
            }
            let mut values = vec![0.0; size];
            for row in (0..size).rev() {
                let done: f64 = (row + 1..size).map(|k| root[k][row] * values[k]).sum();
                values[row] = (half[row] - done) / root[row][row];
            }
            values
        };
        let doubts = (0..size)
            .map(|at| {
                let mut unit = vec![0.0; size];
                unit[at] = 1.0;
                solve(&unit)[at].max(0.0).sqrt()
            })
            .collect();
        (solve(&self.right), doubts)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn one_reading_moves_one_material_as_its_doubt_and_the_readings_weigh() {
        // One material of 1000 g, doubt 0.1 of it, and a reading 100 g over, doubt 50 g:
        // 100 = 0.01⁻¹; 1000²/50² = 400; factor − 1 = 1000·100/2500/(100 + 400) = 40/500 = 0.08; doubt 500^−½ = 0.044721
        let mut normal = Normal::new([0.1].into_iter());
        normal.add(&[(0, 1000.0)], 100.0, 50.0);
        let (moved, doubts) = normal.solved();
        assert!((moved[0] - 0.08).abs() < 1e-12, "{moved:?}");
        assert!((doubts[0] - 0.044_721_359_55).abs() < 1e-9, "{doubts:?}");
    }

    #[test]
    fn two_materials_share_what_neither_explains_alone() {
        // Alike in everything, they move alike: each 1000·100/2500/(100 + 800) = 40/900
        let mut normal = Normal::new([0.1, 0.1].into_iter());
        normal.add(&[(0, 1000.0), (1, 1000.0)], 100.0, 50.0);
        let (moved, _) = normal.solved();
        assert!((moved[0] - 40.0 / 900.0).abs() < 1e-12, "{moved:?}");
        assert!((moved[0] - moved[1]).abs() < 1e-12, "{moved:?}");
    }
}
