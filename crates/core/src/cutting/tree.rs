//! One sheet while it is laid out: a tree of strips, so that whatever it holds can be cut from edge to edge.

/// A length in picometres: sums of them are exact.
pub(super) type Pm = i64;

/// A side of a part and the other, as it lies.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) struct Lying {
    pub part: u32,
    pub turned: bool,
    pub w: Pm,
    pub h: Pm,
}

/// The way along which a strip's children lie beside each other.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Axis {
    X,
    Y,
}

const NONE: u16 = u16::MAX;

/// A part or a strip of a sheet that is laid out.
#[derive(Debug, Clone, Copy)]
pub(super) struct Side(u16);

#[derive(Debug, Clone, Copy)]
enum Kind {
    Leaf { part: u32, turned: bool },
    Strip(Axis),
}

/// A part, or a strip of parts; parents stand before their children.
#[derive(Debug, Clone, Copy)]
struct Node {
    kind: Kind,
    /// What it needs.
    w: Pm,
    h: Pm,
    /// What it could grow to with the room that its strips have over.
    most_w: Pm,
    most_h: Pm,
    parent: u16,
    first: u16,
    next: u16,
}

impl Node {
    const fn of(kind: Kind, w: Pm, h: Pm, parent: u16) -> Self {
        Self {
            kind,
            w,
            h,
            most_w: 0,
            most_h: 0,
            parent,
            first: NONE,
            next: NONE,
        }
    }

    const fn strip(axis: Axis, parent: u16) -> Self {
        Self::of(Kind::Strip(axis), 0, 0, parent)
    }

    const fn leaf(Lying { part, turned, w, h }: Lying) -> Self {
        Self::of(Kind::Leaf { part, turned }, w, h, NONE)
    }
}

/// Room beside a node, at right angles to the strip that the node lies in.
#[derive(Debug, Clone, Copy)]
pub(super) struct Spot {
    node: u16,
    /// The way in which the room lies from the node.
    axis: Axis,
    pub w: Pm,
    pub h: Pm,
    /// What the node needs along the room's own other way, and along it.
    beside: Pm,
    along: Pm,
}

#[derive(Debug, Clone)]
pub(super) struct Tree {
    w: Pm,
    h: Pm,
    /// No part is narrower: what is, is no room.
    narrowest: Pm,
    nodes: Vec<Node>,
    spots: Vec<Spot>,
    used: i128,
    parts: u32,
}

/// How much of a fit is waste, the less the better; the order of the numbers is all that counts.
pub(super) type Waste = f64;

impl Tree {
    pub(super) fn new(w: Pm, h: Pm, narrowest: Pm) -> Self {
        let mut tree = Self {
            w,
            h,
            narrowest,
            nodes: Vec::new(),
            spots: Vec::new(),
            used: 0,
            parts: 0,
        };
        tree.find_room();
        tree
    }

    /// Returns a sheet of shelves, the lowest first; upright ones stand beside each other.
    pub(super) fn of_shelves(
        (w, h): (Pm, Pm),
        narrowest: Pm,
        upright: bool,
        shelves: &[Vec<Lying>],
    ) -> Self {
        let (along, across) = if upright {
            (Axis::Y, Axis::X)
        } else {
            (Axis::X, Axis::Y)
        };
        let mut tree = Self::new(w, h, narrowest);
        tree.push(Node::strip(across, NONE));
        for shelf in shelves {
            let strip = tree.push(Node::strip(along, 0));
            tree.nodes[usize::from(strip)].next = tree.nodes[0].first;
            tree.nodes[0].first = strip;
            for part in shelf {
                let leaf = tree.push(Node {
                    parent: strip,
                    next: tree.nodes[usize::from(strip)].first,
                    ..Node::leaf(*part)
                });
                tree.nodes[usize::from(strip)].first = leaf;
                tree.used += i128::from(part.w) * i128::from(part.h);
                tree.parts += 1;
            }
        }
        tree.in_order();
        tree.measure();
        tree
    }

    pub(super) const fn sheet(&self) -> (Pm, Pm) {
        (self.w, self.h)
    }

    pub(super) fn root(&self) -> Option<Side> {
        (!self.nodes.is_empty()).then_some(Side(0))
    }

    /// What a node needs of a sheet.
    pub(super) fn needs(&self, node: Side) -> (Pm, Pm) {
        let node = &self.nodes[usize::from(node.0)];
        (node.w, node.h)
    }

    /// Which way a strip goes; `None` if it is a part.
    pub(super) fn strip(&self, node: Side) -> Option<Axis> {
        match self.nodes[usize::from(node.0)].kind {
            Kind::Strip(axis) => Some(axis),
            Kind::Leaf { .. } => None,
        }
    }

    pub(super) fn part(&self, node: Side) -> Option<Lying> {
        let node = &self.nodes[usize::from(node.0)];
        match node.kind {
            Kind::Leaf { part, turned } => Some(Lying {
                part,
                turned,
                w: node.w,
                h: node.h,
            }),
            Kind::Strip(_) => None,
        }
    }

    pub(super) fn kids(&self, node: Side) -> Vec<Side> {
        let mut kids = Vec::new();
        let mut kid = self.nodes[usize::from(node.0)].first;
        while kid != NONE {
            kids.push(Side(kid));
            kid = self.nodes[usize::from(kid)].next;
        }
        kids
    }

    pub(super) const fn used(&self) -> i128 {
        self.used
    }

    pub(super) const fn is_empty(&self) -> bool {
        self.parts == 0
    }

    pub(super) fn spots(&self) -> &[Spot] {
        &self.spots
    }

    /// Puts a part where there is room for it.
    pub(super) fn put(&mut self, spot: Spot, part: Lying) {
        self.used += i128::from(part.w) * i128::from(part.h);
        self.parts += 1;
        let leaf = Node::leaf(part);
        if self.nodes.is_empty() {
            self.nodes.push(leaf);
            self.measure();
            return;
        }
        let at = usize::from(spot.node);
        match self.nodes[at].kind {
            Kind::Strip(axis) if axis == spot.axis => {
                let new = self.push(leaf);
                self.nodes[usize::from(new)].next = self.nodes[at].first;
                self.nodes[usize::from(new)].parent = spot.node;
                self.nodes[at].first = new;
                self.measure();
            }
            kind => {
                // The node becomes a strip that holds what it was, and the part beside it.
                let was = self.nodes[at];
                let moved = self.push(Node {
                    parent: spot.node,
                    next: NONE,
                    ..was
                });
                let mut kid = was.first;
                while kid != NONE {
                    self.nodes[usize::from(kid)].parent = moved;
                    kid = self.nodes[usize::from(kid)].next;
                }
                let new = self.push(Node {
                    parent: spot.node,
                    next: moved,
                    ..leaf
                });
                let node = &mut self.nodes[at];
                node.kind = Kind::Strip(spot.axis);
                node.first = new;
                if matches!(kind, Kind::Strip(_)) {
                    self.in_order();
                }
                self.measure();
            }
        }
    }

    fn push(&mut self, node: Node) -> u16 {
        let at = u16::try_from(self.nodes.len()).expect("a sheet holds fewer parts than that");
        self.nodes.push(node);
        at
    }

    /// How many nodes there are to take out.
    pub(super) fn nodes(&self) -> usize {
        self.nodes.len()
    }

    /// Takes a part or a whole strip out, and tells which parts those were.
    pub(super) fn take(&mut self, node: usize, out: &mut Vec<u32>) {
        let mut stack = vec![u16::try_from(node).expect("it is a node of this tree")];
        while let Some(at) = stack.pop() {
            let node = &mut self.nodes[usize::from(at)];
            if let Kind::Leaf { part, .. } = node.kind {
                out.push(part);
                self.used -= i128::from(node.w) * i128::from(node.h);
                self.parts -= 1;
            }
            let mut kid = node.first;
            node.first = NONE;
            node.kind = Kind::Strip(Axis::X);
            while kid != NONE {
                stack.push(kid);
                kid = self.nodes[usize::from(kid)].next;
            }
        }
        self.in_order();
        self.measure();
    }

    /// Writes the nodes again, parents before children, without strips that hold nothing, one thing, or a strip of their
    /// own way.
    fn in_order(&mut self) {
        let old = std::mem::take(&mut self.nodes);
        if old.is_empty() {
            return;
        }
        self.nodes.reserve(old.len() + 2);
        copy(&old, 0, NONE, &mut self.nodes);
    }

    /// Works out what each node needs, what it could grow to, and where there is room.
    fn measure(&mut self) {
        for at in (0..self.nodes.len()).rev() {
            if let Kind::Strip(axis) = self.nodes[at].kind {
                let (mut along, mut across) = (0, 0);
                let mut kid = self.nodes[at].first;
                while kid != NONE {
                    let node = &self.nodes[usize::from(kid)];
                    let (one, other) = match axis {
                        Axis::X => (node.w, node.h),
                        Axis::Y => (node.h, node.w),
                    };
                    along += one;
                    across = across.max(other);
                    kid = node.next;
                }
                let node = &mut self.nodes[at];
                (node.w, node.h) = match axis {
                    Axis::X => (along, across),
                    Axis::Y => (across, along),
                };
            }
        }
        for at in 0..self.nodes.len() {
            let parent = self.nodes[at].parent;
            let (most_w, most_h) = if parent == NONE {
                (self.w, self.h)
            } else {
                let over = &self.nodes[usize::from(parent)];
                let node = &self.nodes[at];
                match over.kind {
                    Kind::Strip(Axis::X) => (node.w + over.most_w - over.w, over.most_h),
                    _ => (over.most_w, node.h + over.most_h - over.h),
                }
            };
            self.nodes[at].most_w = most_w;
            self.nodes[at].most_h = most_h;
        }
        self.find_room();
    }

    fn find_room(&mut self) {
        self.spots.clear();
        if self.nodes.is_empty() {
            self.spots.push(Spot {
                node: 0,
                axis: Axis::X,
                w: self.w,
                h: self.h,
                beside: 0,
                along: 0,
            });
            return;
        }
        for (at, node) in self.nodes.iter().enumerate() {
            let over = (node.parent != NONE).then(|| self.nodes[usize::from(node.parent)].kind);
            let ways: &[Axis] = match over {
                None => &[Axis::X, Axis::Y],
                Some(Kind::Strip(Axis::X)) => &[Axis::Y],
                Some(_) => &[Axis::X],
            };
            for &axis in ways {
                let spot = match axis {
                    Axis::X => Spot {
                        node: u16::try_from(at).expect("checked when it was put there"),
                        axis,
                        w: node.most_w - node.w,
                        h: node.most_h,
                        beside: node.h,
                        along: node.w,
                    },
                    Axis::Y => Spot {
                        node: u16::try_from(at).expect("checked when it was put there"),
                        axis,
                        w: node.most_w,
                        h: node.most_h - node.h,
                        beside: node.w,
                        along: node.h,
                    },
                };
                if spot.w >= self.narrowest && spot.h >= self.narrowest {
                    self.spots.push(spot);
                }
            }
        }
    }
}

fn copy(old: &[Node], at: u16, parent: u16, new: &mut Vec<Node>) -> u16 {
    let mut node = old[usize::from(at)];
    if let Kind::Strip(_) = node.kind {
        // A strip of one is that one; a strip of none is nothing.
        let mut alive = Vec::new();
        let mut kid = node.first;
        while kid != NONE {
            if holds_any(old, kid) {
                alive.push(kid);
            }
            kid = old[usize::from(kid)].next;
        }
        match alive[..] {
            [] => return NONE,
            [only] => return copy(old, only, parent, new),
            _ => {}
        }
        let at = u16::try_from(new.len()).expect("it was no larger before");
        node.parent = parent;
        node.first = NONE;
        node.next = NONE;
        new.push(node);
        for kid in alive.into_iter().rev() {
            graft(old, kid, at, new);
        }
        return at;
    }
    let at = u16::try_from(new.len()).expect("it was no larger before");
    node.parent = parent;
    node.next = NONE;
    new.push(node);
    at
}

/// Copies a child into a strip; where what is left of it is a strip of the same way, its children.
fn graft(old: &[Node], kid: u16, into: u16, new: &mut Vec<Node>) {
    let lone = lone(old, kid);
    let node = &old[usize::from(lone)];
    let same = match (node.kind, new[usize::from(into)].kind) {
        (Kind::Strip(one), Kind::Strip(other)) => one == other,
        _ => false,
    };
    if same {
        let mut grandchild = node.first;
        while grandchild != NONE {
            if holds_any(old, grandchild) {
                graft(old, grandchild, into, new);
            }
            grandchild = old[usize::from(grandchild)].next;
        }
        return;
    }
    let at = copy(old, lone, into, new);
    new[usize::from(at)].next = new[usize::from(into)].first;
    new[usize::from(into)].first = at;
}

/// What is left of a node whose strips may hold one thing only.
fn lone(old: &[Node], at: u16) -> u16 {
    let node = &old[usize::from(at)];
    if matches!(node.kind, Kind::Leaf { .. }) {
        return at;
    }
    let (mut only, mut kid) = (NONE, node.first);
    while kid != NONE {
        if holds_any(old, kid) {
            if only != NONE {
                return at;
            }
            only = kid;
        }
        kid = old[usize::from(kid)].next;
    }
    lone(old, only)
}

fn holds_any(old: &[Node], at: u16) -> bool {
    let node = &old[usize::from(at)];
    if matches!(node.kind, Kind::Leaf { .. }) {
        return true;
    }
    let mut kid = node.first;
    while kid != NONE {
        if holds_any(old, kid) {
            return true;
        }
        kid = old[usize::from(kid)].next;
    }
    false
}

impl Spot {
    /// How high, or else how wide, what lies next to it is.
    pub(super) const fn level(&self) -> Result<Pm, Pm> {
        match self.axis {
            Axis::X => Ok(self.beside),
            Axis::Y => Err(self.beside),
        }
    }

    /// Returns what a part would waste here; `None` if it does not go in.
    ///
    /// What is left beside it, or beside what it lies next to, is waste; so is a rest too narrow for any part.
    #[inline]
    pub(super) fn waste(&self, w: Pm, h: Pm, narrowest: Pm) -> Option<Waste> {
        if w > self.w || h > self.h {
            return None;
        }
        let (along, across, room) = match self.axis {
            Axis::X => (w, h, self.w),
            Axis::Y => (h, w, self.h),
        };
        let most_across = match self.axis {
            Axis::X => self.h,
            Axis::Y => self.w,
        };
        #[allow(clippy::cast_precision_loss, reason = "it is only compared")]
        let area = |one: Pm, other: Pm| one as f64 * other as f64;
        let beside = if across <= self.beside {
            area(self.beside - across, along)
        } else {
            area(across - self.beside, self.along)
        };
        let rest = room - along;
        let sliver = if rest < narrowest {
            area(rest, across.max(self.beside))
        } else {
            0.0
        };
        let edge = most_across - across.max(self.beside);
        let strip = if edge < narrowest && edge > 0 {
            area(edge, along)
        } else {
            0.0
        };
        Some(beside + sliver + strip)
    }
}
