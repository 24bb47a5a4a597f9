//! The pages, as a person uses them.

mod boxes;
mod everyone;
mod guard;
mod house;
mod log;
mod network;
mod pack;
mod rates;
mod sending;
mod shelf;
mod shipment;
mod together;
mod typing;
mod weigh;
