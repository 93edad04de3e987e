//! A weight that slipped by its decimal sign: asked about once, as it comes in.

use bodega_model::measures::units::{grams, in_pounds};
use bodega_model::measures::words::short;

/// Lots that have to have come in before one can be called odd.
const LEAST_LOTS: usize = 3;
/// So many times less than the usual lot is asked about. Ours: a sign that slipped by two places makes a hundred, and nobody's crates
/// differ by that.
const FAR_LESS: i64 = 60;

/// What usually comes in at once, in grams, when this is so far below it that it may be a slip; `None` when it is not, or when too
/// little is known. `past` are the household's last lots in any order.
///
/// ```
/// use bodega_core::crates::slip::far_below;
/// let past = [9_000, 8_000, 12_000];
/// assert_eq!(far_below(90, &past), Some(9_000));
/// assert_eq!(far_below(900, &past), None);
/// assert_eq!(far_below(90, &past[1..]), None);
/// ```
#[must_use]
pub fn far_below(weight_g: i64, past: &[i64]) -> Option<i64> {
    let mut past = past.to_vec();
    past.sort_unstable();
    let usual = *past.get(past.len() / 2).filter(|_| past.len() >= LEAST_LOTS)?;
    (weight_g.saturating_mul(FAR_LESS) <= usual).then_some(usual)
}

/// Why a weight is asked about: what usually comes in, in both measures.
#[derive(Debug, Clone, Copy, PartialEq, Eq, thiserror::Error)]
#[error(
    "that is far less than what usually comes in here, about {} lb ({} kg): say that it is so, or how much it is",
    short(in_pounds(grams(*.usual_g)).round()),
    short(kilograms_of(*.usual_g))
)]
pub struct IsItSo {
    /// What usually comes in, in grams.
    pub usual_g: i64,
}

/// In kilograms, to a tenth.
fn kilograms_of(grams: i64) -> f64 {
    #[expect(clippy::cast_precision_loss, reason = "a lorry load of grams stays below 2^53")]
    let kilograms = grams as f64 / 1000.0;
    (kilograms * 10.0).round() / 10.0
}

#[cfg(test)]
mod tests {
    use super::{IsItSo, far_below};

    #[test]
    fn a_sixtieth_of_the_middle_lot_is_asked_about() {
        let past = [9_000, 60_000, 6_000, 9_000];
        assert_eq!(far_below(150, &past), Some(9_000));
        assert_eq!(far_below(151, &past), None);
        assert_eq!(far_below(1, &[]), None);
        assert_eq!(far_below(i64::MAX, &past), None);
        assert_eq!(
            IsItSo { usual_g: 9_000 }.to_string(),
            "that is far less than what usually comes in here, about 20 lb (9 kg): say that it is so, or how much it is"
        );
    }
}
