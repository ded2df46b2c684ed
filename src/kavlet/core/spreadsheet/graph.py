"""Which formula depends on which cells, and the order in which to evaluate them.

Nodes are formula cells and ranges. Ranges of the same columns and first row form a chain, each one resting on the
next shorter, so that a column of running sums costs one link per row and not one per pair of rows.
"""

from bisect import bisect_left
from collections import defaultdict
from collections.abc import Iterable
from itertools import pairwise

from kavlet.core.spreadsheet.compiling import Template, resolved

CellPlace = tuple[int, int, int]  # table, column, row
CellRange = tuple[int, int, int, int, int]  # table, first column, last column, first row, last row
Vertex = CellPlace | CellRange


class Graph:
    """Built once for a set of formulas; read-only afterwards."""

    def __init__(self, formulas: dict[CellPlace, Template], tables: dict[str, int]) -> None:
        self.formulas = formulas
        self._after: defaultdict[Vertex, list[Vertex]] = defaultdict(list)
        self._chains: defaultdict[tuple[int, int], dict[tuple[int, int, int, int], list[int]]] = defaultdict(dict)
        ends: defaultdict[tuple[int, int, int, int], set[int]] = defaultdict(set)
        for place, one in formulas.items():
            table, column, row = place
            for reference in one.references:
                home = tables.get(reference.table, -1) if reference.table else table
                c1, r1 = resolved(reference.one, column, row)
                if reference.other is None:
                    self._after[home, c1, r1].append(place)
                    continue
                c2, r2 = resolved(reference.other, column, row)
                span = (home, min(c1, c2), max(c1, c2), min(r1, r2), max(r1, r2))
                self._after[span].append(place)
                ends[span[:4]].add(span[4])
        for chain, lasts in ends.items():
            ordered = sorted(lasts)
            for shorter, longer in pairwise(ordered):
                self._after[*chain, shorter].append((*chain, longer))
            home, first, last, _ = chain
            for column in range(first, last + 1):
                self._chains[home, column][chain] = ordered

    def after(self, node: Vertex) -> Iterable[Vertex]:
        """The nodes that read this one directly."""
        yield from self._after.get(node, ())
        if len(node) == 3:
            table, column, row = node
            for chain, lasts in self._chains.get((table, column), {}).items():
                if chain[3] <= row:
                    at = bisect_left(lasts, row)
                    if at < len(lasts):
                        yield (*chain, lasts[at])

    def order(self, changed: Iterable[CellPlace]) -> tuple[list[CellPlace], list[CellPlace]]:
        """The formulas to evaluate after these cells changed, in order, and those that are part of a cycle.

        A changed cell that is itself a formula is evaluated too.
        """
        reached: dict[Vertex, list[Vertex]] = {}
        waiting: list[Vertex] = list(changed)
        while waiting:
            node = waiting.pop()
            if node not in reached:
                reached[node] = list(self.after(node))
                waiting.extend(reached[node])
        before = dict.fromkeys(reached, 0)
        for followers in reached.values():
            for follower in followers:
                before[follower] += 1
        ready = [node for node, count in before.items() if count == 0]
        order: list[CellPlace] = []
        loops: list[CellPlace] = []
        while True:
            while ready:
                node = ready.pop()
                if len(node) == 3 and node in self.formulas:
                    order.append(node)
                for follower in reached[node]:
                    before[follower] -= 1
                    if before[follower] == 0:
                        ready.append(follower)
                del before[node]
            if not before:
                return order, loops
            cycle = _first_cycle(before, reached)
            loops.extend(node for node in cycle if len(node) == 3)
            inside = set(cycle)
            for node in cycle:
                for follower in reached[node]:
                    if follower in before and follower not in inside:
                        before[follower] -= 1
                        if before[follower] == 0:
                            ready.append(follower)
            for node in cycle:
                del before[node]


def _first_cycle(left: dict[Vertex, int], after: dict[Vertex, list[Vertex]]) -> list[Vertex]:
    """A strongly connected part that no other left node leads into (Tarjan 1972, without recursion)."""
    index: dict[Vertex, int] = {}
    low: dict[Vertex, int] = {}
    stack: list[Vertex] = []
    on_stack: set[Vertex] = set()
    last: list[Vertex] = []
    for start in left:
        if start in index:
            continue
        work = [(start, iter(after[start]))]
        index[start] = low[start] = len(index)
        stack.append(start)
        on_stack.add(start)
        while work:
            node, followers = work[-1]
            for follower in followers:
                if follower not in left:
                    continue
                if follower not in index:
                    index[follower] = low[follower] = len(index)
                    stack.append(follower)
                    on_stack.add(follower)
                    work.append((follower, iter(after[follower])))
                    break
                if follower in on_stack:
                    low[node] = min(low[node], index[follower])
            else:
                work.pop()
                if work:
                    low[work[-1][0]] = min(low[work[-1][0]], low[node])
                if low[node] == index[node]:
                    part: list[Vertex] = []
                    while not part or part[-1] != node:
                        part.append(stack.pop())
                        on_stack.discard(part[-1])
                    # Parts come out with followers first: the last one found has nothing left before it.
                    if len(part) > 1 or node in after[node]:
                        last = part
    return last
