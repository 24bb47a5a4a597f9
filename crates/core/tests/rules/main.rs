//! The rules of the job, over whatever can be packed.

mod arrange;
mod as_it_is;
mod benches;
mod boxes;
mod choices;
mod containers;
mod cushion;
mod cutting;
#[cfg(feature = "schema")]
mod edition;
mod english;
mod everyday;
mod floors;
mod freight;
mod front;
mod gathered;
mod hands;
mod layers;
mod leaving;
mod mistakes;
mod money;
mod odds;
mod pack;
mod parts;
mod past;
mod plans;
mod prices;
mod questions;
mod seams;
mod sheets;
mod shelf;
mod studio;
mod styles;
mod tiers;
mod together;
mod weigh;
