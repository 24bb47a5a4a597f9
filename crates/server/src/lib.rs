//! Hummock as a web application: the API under `/api/v1`, its description, and the pages.
//!
//! Handlers extract, call the core and the store, and map what comes back; the rules of the job are in
//! `hummock-core`.

mod account;
mod addresses;
mod after;
mod api;
mod app;
mod backup;
mod body;
mod carrier_service;
mod clock;
mod command;
mod countries;
mod csv_rows;
mod curves;
mod cutting;
mod cuttings;
#[cfg(feature = "schema")]
mod described;
mod description;
mod desk;
mod documents;
mod guard;
mod house;
mod houses;
mod import;
mod jobs;
mod kinds;
mod leaving;
mod left;
mod log;
mod measures;
mod network;
mod orders;
mod outside;
mod pages;
mod papers;
mod per_studio;
mod photographs;
mod pictures;
mod plans;
mod press;
mod problem;
mod rework;
mod routes;
mod sender;
mod serve;
mod settings;
mod shelf;
mod shelf_table;
mod shelves;
mod shipments;
mod slots;
mod stores;
mod studio;
mod studios;
mod sums;
mod table;
mod tariff_table;
mod tariffs;
mod ways;
mod weighings;

pub use app::App;
pub use backup::{nightly::Nightly, upgrading::Upgrade};
pub use clock::Clock;
pub use command::{command, command_of};
#[cfg(feature = "schema")]
pub use described::description;
pub use guard::{NotOurs, Ours};
pub use import::{Fill, Imported, import};
pub use network::MostConnections;
pub use network::{Certificate, Listen, Network, NoNetwork};
pub use outside::Patience;
pub use pages::{PageFile, PageShelf, Pages};
pub use pictures::Pictures;
pub use press::Documents;
pub use serve::{Budgets, Outside, Running, STUDIO, ServeOptions, Waits, serve};
