//! Who takes what on the strip.

use serde::Serialize;

use super::Day;

/// A place in a lane: the block, and which of the like ones it takes, from 0.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Lane {
    /// Place of the block in the list.
    pub block: usize,
    /// Which resource: 0 hands, 1 burners, 2 kettles, 3 canners.
    pub resource: usize,
    /// Which of them, from 0.
    pub number: u32,
}

/// Who takes what: blocks coloured onto hands, burners, kettles and canners in the order in which they start.
#[must_use]
pub fn lanes(day: &Day, starts: &[u32]) -> Vec<Lane> {
    let mut order: Vec<usize> = (0..starts.len()).collect();
    order.sort_by_key(|block| (starts[*block], *block));
    let mut taken = Vec::new();
    for (resource, have) in day.has.each().into_iter().enumerate() {
        let mut free_at = vec![0_u32; have as usize];
        for block in &order {
            let task = &day.tasks[*block];
            let wanted = task.uses.each()[resource] as usize;
            let fits = (0..free_at.len()).filter(|lane| free_at[*lane] <= starts[*block]);
            for lane in fits.take(wanted).collect::<Vec<_>>() {
                free_at[lane] = starts[*block] + task.minutes;
                taken.push(Lane { block: *block, resource, number: u32::try_from(lane).unwrap_or(0) });
            }
        }
    }
    taken
}
