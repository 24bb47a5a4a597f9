//! How many connections stand at once: in all, and from one address. Who is over that is hung up on, and the log says so.

use std::{
    collections::HashMap,
    future::Future,
    io,
    net::IpAddr,
    pin::Pin,
    sync::{Arc, Mutex, PoisonError},
    task::{Context, Poll},
    time::{Duration, Instant},
};

use axum_server::accept::Accept;
use tokio::{
    io::{AsyncRead, AsyncWrite, ReadBuf},
    net::TcpStream,
};

/// How many may stand.
#[derive(Debug, Clone, Copy)]
pub struct MostConnections {
    /// From all addresses.
    pub in_all: usize,
    /// From one of them.
    pub each: usize,
}

impl MostConnections {
    /// Of the machine itself: pages, tabs and scripts of whoever owns it.
    pub const MACHINE: Self = Self {
        in_all: 512,
        each: 512,
    };
    /// Of the local network: a tablet has six, and streams besides.
    pub const NETWORK: Self = Self {
        in_all: 256,
        each: 32,
    };
}

/// The log says it once in so long.
const SAYS_EVERY: Duration = Duration::from_secs(60);

/// Those that stand now.
#[derive(Debug, Default)]
struct Standing {
    from: HashMap<IpAddr, usize>,
    in_all: usize,
    said: Option<Instant>,
}

/// Lets connections in, as many as may stand, and hands them on.
#[derive(Debug, Clone)]
pub(crate) struct Capped<A> {
    inner: A,
    most: MostConnections,
    standing: Arc<Mutex<Standing>>,
}

impl<A> Capped<A> {
    pub(crate) fn new(inner: A, most: MostConnections) -> Self {
        Self {
            inner,
            most,
            standing: Arc::default(),
        }
    }

    fn enter(&self, from: IpAddr) -> io::Result<Place> {
        let mut standing = self.standing.lock().unwrap_or_else(PoisonError::into_inner);
        let of_this = standing.from.get(&from).copied().unwrap_or_default();
        if standing.in_all >= self.most.in_all || of_this >= self.most.each {
            let now = Instant::now();
            if standing.said.is_none_or(|said| now - said > SAYS_EVERY) {
                standing.said = Some(now);
                tracing::warn!(%from, of_this, in_all = standing.in_all, "too many connections: further ones are hung up on");
            }
            return Err(io::Error::other("too many connections"));
        }
        standing.in_all += 1;
        *standing.from.entry(from).or_default() += 1;
        Ok(Place {
            from,
            standing: Arc::clone(&self.standing),
        })
    }
}

/// A place that is taken until this is dropped.
#[derive(Debug)]
struct Place {
    from: IpAddr,
    standing: Arc<Mutex<Standing>>,
}

impl Drop for Place {
    fn drop(&mut self) {
        let mut standing = self.standing.lock().unwrap_or_else(PoisonError::into_inner);
        standing.in_all -= 1;
        if let Some(of_this) = standing.from.get_mut(&self.from) {
            *of_this -= 1;
            if *of_this == 0 {
                standing.from.remove(&self.from);
            }
        }
    }
}

/// A connection with its place.
#[derive(Debug)]
pub(crate) struct Placed<S> {
    stream: S,
    _place: Place,
}

impl<A, S> Accept<TcpStream, S> for Capped<A>
where
    A: Accept<TcpStream, S>,
    A::Future: Send + 'static,
    A::Stream: Send,
    A::Service: Send,
{
    type Stream = Placed<A::Stream>;
    type Service = A::Service;
    type Future = Pin<Box<dyn Future<Output = io::Result<(Self::Stream, Self::Service)>> + Send>>;

    fn accept(&self, stream: TcpStream, service: S) -> Self::Future {
        let place = stream.peer_addr().and_then(|peer| self.enter(peer.ip()));
        match place {
            Ok(place) => {
                let inner = self.inner.accept(stream, service);
                Box::pin(async move {
                    let (stream, service) = inner.await?;
                    let placed = Placed {
                        stream,
                        _place: place,
                    };
                    Ok((placed, service))
                })
            }
            Err(error) => Box::pin(async move { Err(error) }),
        }
    }
}

impl<S: AsyncRead + Unpin> AsyncRead for Placed<S> {
    fn poll_read(
        mut self: Pin<&mut Self>,
        context: &mut Context<'_>,
        into: &mut ReadBuf<'_>,
    ) -> Poll<io::Result<()>> {
        Pin::new(&mut self.stream).poll_read(context, into)
    }
}

impl<S: AsyncWrite + Unpin> AsyncWrite for Placed<S> {
    fn poll_write(
        mut self: Pin<&mut Self>,
        context: &mut Context<'_>,
        bytes: &[u8],
    ) -> Poll<io::Result<usize>> {
        Pin::new(&mut self.stream).poll_write(context, bytes)
    }

    fn poll_flush(mut self: Pin<&mut Self>, context: &mut Context<'_>) -> Poll<io::Result<()>> {
        Pin::new(&mut self.stream).poll_flush(context)
    }

    fn poll_shutdown(mut self: Pin<&mut Self>, context: &mut Context<'_>) -> Poll<io::Result<()>> {
        Pin::new(&mut self.stream).poll_shutdown(context)
    }

    fn poll_write_vectored(
        mut self: Pin<&mut Self>,
        context: &mut Context<'_>,
        slices: &[io::IoSlice<'_>],
    ) -> Poll<io::Result<usize>> {
        Pin::new(&mut self.stream).poll_write_vectored(context, slices)
    }

    fn is_write_vectored(&self) -> bool {
        self.stream.is_write_vectored()
    }
}
