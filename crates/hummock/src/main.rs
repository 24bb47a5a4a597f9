//! The binary: the application with the pages that it carries.

/// A plan is many small parts: they are made and let go of in half the time.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

fn main() -> anyhow::Result<()> {
    hummock_server::command(hummock_pages::file)
}
