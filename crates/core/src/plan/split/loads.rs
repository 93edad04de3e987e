//! What the canner takes of a split: jars of several products may share a load, which then takes the longest of their times.
//!
//! Nothing but the grouping itself knows which jars go in together in the least time. The model is told what bounds that
//! from below, in cuts: shares of the canner that no filling exceeds. What it then proposes is grouped, and what does not
//! fit after all gives a sharper cut, or is excluded.

use bodega_model::jars::size::JarSize;
use bodega_model::measures::moment::Minutes;
use bodega_model::records::load::SharedLoad;
use microlp::{ComparisonOp, OptimizationDirection, Problem, Variable};

use super::{Choice, NoSplit, Question};
use crate::canner::loads::{Group, fillings, group};
use crate::canner::room::Room;

/// How far beyond the canner a share must be to be worth a cut.
const BEYOND: f64 = 1e-6;

/// Loads that could be shared: those at one pressure.
#[derive(Clone)]
pub(super) struct Kind {
    psi: Option<u32>,
    /// Places of the choices, their sizes among `sizes` and their minutes.
    choices: Vec<(usize, usize, u32)>,
    sizes: Vec<JarSize>,
    /// Distinct times, longest first.
    pub(super) times: Vec<u32>,
    /// Every way to fill the canner, as jars of each size.
    fillings: Vec<Vec<u32>>,
    /// Shares of the canner that a jar of each size takes: no filling adds up to more than one.
    pub(super) cuts: Vec<Vec<f64>>,
}

/// All of them.
#[derive(Clone)]
pub(super) struct Loads<'a> {
    room: &'a dyn Room,
    choices: &'a [Choice],
    pub(super) turnaround: u32,
    pub(super) kinds: Vec<Kind>,
}

/// Loads of certain jars.
pub(super) struct Grouped {
    pub(super) loads: Vec<SharedLoad>,
    pub(super) total: f64,
    /// No grouping takes less.
    pub(super) least: f64,
}

impl Kind {
    fn new(psi: Option<u32>, question: &Question<'_>) -> Result<Self, NoSplit> {
        let of_it = || question.choices.iter().enumerate().filter(|(_, choice)| choice.psi == psi);
        let mut sizes: Vec<JarSize> = of_it().map(|(_, choice)| choice.jar).collect();
        sizes.sort_unstable();
        sizes.dedup();
        let mut times: Vec<u32> = of_it().map(|(_, choice)| choice.minutes.0).collect();
        times.sort_unstable_by(|a, b| b.cmp(a));
        times.dedup();
        let choices = of_it()
            .filter_map(|(place, choice)| {
                let size = sizes.iter().position(|size| *size == choice.jar)?;
                Some((place, size, choice.minutes.0))
            })
            .collect();
        let fillings = fillings(&sizes, question.room)?;
        // Each size by itself, to begin with.
        let alone = |size: usize| {
            let most = fillings.iter().map(|filling| filling[size]).max().unwrap_or(1).max(1);
            (0..sizes.len()).map(|other| if other == size { 1.0 / f64::from(most) } else { 0.0 }).collect()
        };
        let cuts = (0..sizes.len()).map(alone).collect();
        Ok(Self { psi, choices, sizes, times, fillings, cuts })
    }

    /// Share of a load that a jar of each choice takes by a cut, of those that need at least a time.
    pub(super) fn shares<'k>(&'k self, cut: &'k [f64], time: u32) -> impl Iterator<Item = (usize, f64)> + 'k {
        let long = self.choices.iter().filter(move |(_, _, minutes)| *minutes >= time);
        long.map(|(place, size, _)| (*place, cut[*size]))
    }

    /// Shares by which so many jars of each size are more than one load, when there are such.
    fn sharper(&self, jars: &[f64]) -> Option<Vec<f64>> {
        let mut problem = Problem::new(OptimizationDirection::Maximize);
        let shares: Vec<Variable> = jars.iter().map(|jars| problem.add_var(*jars, (0.0, 1.0))).collect();
        for filling in &self.fillings {
            let held = shares.iter().zip(filling).map(|(share, count)| (*share, f64::from(*count)));
            problem.add_constraint(held.collect::<Vec<_>>(), ComparisonOp::Le, 1.0);
        }
        let outcome = problem.solve().ok()?;
        let solution = outcome.solution()?;
        let is_sharper = solution.objective() > 1.0 + BEYOND;
        is_sharper.then(|| shares.iter().map(|share| solution.var_value(*share).max(0.0)).collect())
    }
}

impl<'a> Loads<'a> {
    /// # Errors
    /// [`NoSplit::NoRoom`] for a jar that the canner does not hold.
    pub(super) fn new(question: &'a Question<'_>) -> Result<Self, NoSplit> {
        let mut pressures: Vec<Option<u32>> = question.choices.iter().map(|choice| choice.psi).collect();
        pressures.sort_unstable();
        pressures.dedup();
        let kinds = pressures.into_iter().map(|psi| Kind::new(psi, question));
        Ok(Self {
            room: question.room,
            choices: &question.choices,
            turnaround: question.turnaround.0,
            kinds: kinds.collect::<Result<_, _>>()?,
        })
    }

    /// Adds the cuts that proposed jars of each choice break in so many loads of each time; whether there were any.
    pub(super) fn cut(&mut self, proposed: &[f64], loads: &[Vec<f64>]) -> bool {
        let mut is_cut = false;
        for (kind, loads) in self.kinds.iter_mut().zip(loads) {
            for (time, loads) in kind.times.clone().into_iter().zip(loads) {
                let mut jars = vec![0.0; kind.sizes.len()];
                for (place, size, minutes) in &kind.choices {
                    if *minutes >= time {
                        jars[*size] += proposed[*place] / loads.max(BEYOND);
                    }
                }
                if let Some(cut) = kind.sharper(&jars) {
                    kind.cuts.push(cut);
                    is_cut = true;
                }
            }
        }
        is_cut
    }

    /// Groups so many jars of each choice.
    ///
    /// # Errors
    /// [`NoSplit::NoRoom`].
    pub(super) fn group(&self, jars: &[u32]) -> Result<Grouped, NoSplit> {
        let mut grouped = Grouped { loads: Vec::new(), total: 0.0, least: 0.0 };
        for kind in &self.kinds {
            let of_it = || kind.choices.iter().filter(|(place, ..)| jars[*place] > 0);
            let groups: Vec<Group> = of_it()
                .map(|(place, ..)| Group {
                    jar: self.choices[*place].jar,
                    minutes: self.choices[*place].minutes,
                    count: jars[*place],
                })
                .collect();
            let places: Vec<usize> = of_it().map(|(place, ..)| *place).collect();
            let plan = group(&groups, self.room, Minutes(self.turnaround))?;
            grouped.total += f64::from(plan.total.0);
            grouped.least += f64::from(plan.lower_bound.0);
            grouped.loads.extend(plan.loads.into_iter().map(|load| SharedLoad {
                jars: load.jars.into_iter().map(|(group, count)| (places[group], count)).collect(),
                minutes: load.minutes,
                psi: kind.psi,
            }));
        }
        Ok(grouped)
    }
}
