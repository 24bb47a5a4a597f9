//! Tables that go straight in logarithms between their rows.

/// Returns y at x of points [x, y] with rising x: straight in the logarithms of both between two points, level outside. `None` for no
/// point.
#[must_use]
pub fn straight_in_logs(points: &[[f64; 2]], x: f64) -> Option<f64> {
    let (first, last) = (points.first()?, points.last()?);
    if x <= first[0] {
        return Some(first[1]);
    }
    let between = points.windows(2).find(|pair| x <= pair[1][0]);
    Some(between.map_or(last[1], |pair| {
        let [[x0, y0], [x1, y1]] = [pair[0], pair[1]];
        let share = (x / x0).ln() / (x1 / x0).ln();
        y0 * (y1 / y0).powf(share)
    }))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_table_is_level_outside_and_straight_in_logarithms_between() {
        // Halfway between 1 and 100 in logarithms is 10, and between 2 and 8 it is 4.
        let points = [[1.0, 2.0], [100.0, 8.0]];
        for (x, y) in [
            (0.1, 2.0),
            (1.0, 2.0),
            (10.0, 4.0),
            (100.0, 8.0),
            (1e4, 8.0),
        ] {
            let found = straight_in_logs(&points, x).expect("two points");
            assert!((found - y).abs() < 1e-12, "{found} at {x}");
        }
        assert_eq!(straight_in_logs(&[], 1.0), None);
    }
}
