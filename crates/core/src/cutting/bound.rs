//! What no layout can cost less than.

use super::search::{CuttingTask, Piece, Stock};

/// Shares under which, and over one less which, a side counts as nothing and as all.
const SHARES: [f64; 6] = [0.1, 0.2, 0.25, 0.3, 0.4, 0.5];
const PARTS: [f64; 4] = [1.0, 2.0, 3.0, 4.0];
/// A sum of whole sheets is looked for up to so many steps of money.
const MOST_STEPS: i64 = 4_000_000;
/// What is left to rounding.
const DUST: f64 = 1e-9;

/// A function under which any row of parts that fits a sheet still fits it.
#[derive(Clone, Copy)]
enum Dual {
    Itself,
    Share(f64),
    Parts(f64),
}

impl Dual {
    fn all() -> impl Iterator<Item = Self> {
        let shares = SHARES.into_iter().map(Self::Share);
        std::iter::once(Self::Itself)
            .chain(shares)
            .chain(PARTS.into_iter().map(Self::Parts))
    }

    /// Of a side, as a share of the sheet's: never more than it may count.
    fn of(self, x: f64) -> f64 {
        match self {
            Self::Itself => x,
            Self::Share(share) if x < share - DUST => 0.0,
            Self::Share(share) if x > 1.0 - share + DUST => 1.0,
            Self::Share(_) => x,
            Self::Parts(k) => {
                let times = (k + 1.0) * x;
                if (times - times.round()).abs() < DUST {
                    x
                } else {
                    times.floor() / k
                }
            }
        }
    }
}

/// Returns what no layout costs less than.
///
/// The most, over pairs of dual-feasible functions f and g, of the sum over all parts of the least, over the sheets that
/// take it and the ways that it may lie, of price · f(w/W) · g(h/H); and what the parts' area costs from the sheets that there are; then
/// the least sum of whole sheets that is no less.
/// Source: dual-feasible functions, from the mathematics of packing.
pub(super) fn lower_bound(asked: &CuttingTask<'_>) -> i64 {
    let mut most: f64 = 0.0;
    for f in Dual::all() {
        for g in Dual::all() {
            let sum = asked
                .pieces
                .iter()
                .map(|piece| least(asked, *piece, f, g))
                .sum();
            most = most.max(sum);
        }
    }
    most = most.max(by_area(asked));
    #[allow(clippy::cast_possible_truncation, reason = "money is less than that")]
    let whole = (most * (1.0 - DUST) - DUST).ceil().max(0.0) as i64;
    whole_sheets(asked.stock, whole)
}

/// Returns what the parts' area costs at least, from the sheets that give most area for their price, as many as there are of each:
/// an offcut that costs nothing takes its own area off, and no more.
fn by_area(asked: &CuttingTask<'_>) -> f64 {
    let area = |stock: &Stock| stock.w as f64 * stock.h as f64;
    let mut stock: Vec<&Stock> = asked.stock.iter().collect();
    stock.sort_by(|one, other| {
        let rate = |stock: &Stock| stock.price as f64 / area(stock);
        rate(one).total_cmp(&rate(other))
    });
    let all: f64 = asked.pieces.iter().map(|piece| piece.area() as f64).sum();
    // What is left to rounding costs nothing.
    let mut left = all * (1.0 - DUST);
    let mut cost = 0.0;
    for one in stock {
        let (sheets, there) = (left / area(one), f64::from(one.count));
        cost += sheets.min(there) * one.price as f64;
        // What is left by rounding alone would be charged as a whole sheet of the next kind.
        if sheets <= there {
            break;
        }
        left -= there * area(one);
    }
    cost
}

fn least(asked: &CuttingTask<'_>, piece: Piece, f: Dual, g: Dual) -> f64 {
    asked
        .stock
        .iter()
        .flat_map(|stock| piece.ways(0).map(move |lying| (stock, lying)))
        .filter(|(stock, lying)| lying.w <= stock.w && lying.h <= stock.h)
        .map(|(stock, lying)| {
            let across = f.of(lying.w as f64 / stock.w as f64);
            let up = g.of(lying.h as f64 / stock.h as f64);
            stock.price as f64 * across * up
        })
        .min_by(f64::total_cmp)
        .unwrap_or(0.0)
}

/// The least sum of whole sheets that is no less than a bound.
fn whole_sheets(stock: &[Stock], bound: i64) -> i64 {
    let prices: Vec<i64> = stock
        .iter()
        .map(|one| one.price)
        .filter(|price| *price > 0)
        .collect();
    let Some(step) = prices.iter().copied().reduce(gcd) else {
        return 0;
    };
    let wanted = (bound + step - 1) / step;
    let largest = prices.iter().max().map_or(0, |most| most / step);
    if wanted + largest > MOST_STEPS {
        return wanted * step;
    }
    let slots = usize::try_from(wanted + largest).unwrap_or(0) + 1;
    let (mut reached, mut sum) = (vec![false; slots], 0);
    reached[0] = true;
    for at in 0..slots {
        if reached[at] {
            if sum >= wanted {
                return sum * step;
            }
            for price in &prices {
                let next = at + usize::try_from(price / step).unwrap_or(slots);
                if next < slots {
                    reached[next] = true;
                }
            }
        }
        sum += 1;
    }
    wanted * step
}

const fn gcd(one: i64, other: i64) -> i64 {
    let (mut one, mut other) = (one, other);
    while other != 0 {
        (one, other) = (other, one % other);
    }
    one
}
