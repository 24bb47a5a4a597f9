//! The pages, as a person uses them.

mod boxes;
mod everyone;
mod guard;
mod house;
mod network;
mod shipment;
mod typing;
