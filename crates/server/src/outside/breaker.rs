//! A circuit breaker: who fails time after time is let rest, and then asked once.

use std::time::{Duration, Instant};

/// Whether somebody may be asked.
#[derive(Debug, Clone, Copy)]
pub(super) struct Breaker {
    failed: u32,
    /// Until then nobody asks.
    rests_until: Option<Instant>,
    opens_after: u32,
    rests: Duration,
}

impl Breaker {
    pub(super) const fn new(opens_after: u32, rests: Duration) -> Self {
        Self {
            failed: 0,
            rests_until: None,
            opens_after,
            rests,
        }
    }

    /// Tells whether to ask now. After a rest the first one asks, and until it is answered the others wait for another rest.
    pub(super) fn may_ask(&mut self, now: Instant) -> bool {
        match self.rests_until {
            None => true,
            Some(until) if now < until => false,
            Some(_) => {
                self.rests_until = Some(now + self.rests);
                true
            }
        }
    }

    /// Lets it rest for as long as it asked for, though it is well.
    pub(super) fn rests_for(&mut self, pause: Duration, now: Instant) {
        self.failed = 0;
        self.rests_until = Some(now + pause);
    }

    /// Takes down how it went.
    pub(super) fn went(&mut self, well: bool, now: Instant) {
        if well {
            self.failed = 0;
            self.rests_until = None;
            return;
        }
        self.failed = self.failed.saturating_add(1);
        if self.failed >= self.opens_after {
            self.rests_until = Some(now + self.rests);
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    const REST: Duration = Duration::from_secs(30);

    #[test]
    fn who_fails_three_times_rests_and_is_then_asked_once() {
        let start = Instant::now();
        let mut breaker = Breaker::new(3, REST);
        for _ in 0..2 {
            assert!(breaker.may_ask(start));
            breaker.went(false, start);
        }
        assert!(breaker.may_ask(start), "twice may be chance");
        breaker.went(false, start);
        assert!(!breaker.may_ask(start));
        assert!(!breaker.may_ask(start + REST / 2));
        let later = start + REST;
        assert!(breaker.may_ask(later), "one tries");
        assert!(!breaker.may_ask(later), "the others wait for it");
        breaker.went(false, later);
        assert!(!breaker.may_ask(later + REST / 2));
        assert!(breaker.may_ask(later + REST));
        breaker.went(true, later + REST);
        assert!(breaker.may_ask(later + REST));
        assert!(breaker.may_ask(later + REST));
    }
}
