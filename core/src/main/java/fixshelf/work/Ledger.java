package fixshelf.work;

import fixshelf.plan.Plan;
import fixshelf.table.Lineage;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/// What became of every row that was read: left, merged into groups, multiplied, added or still there. It adds up.
///
/// @param read the rows of the source
/// @param entries a line each that does anything with rows
/// @param out the rows that come out
/// @param branches the ends of branches that the result does not go back to
public record Ledger(long read, List<Entry> entries, long out, List<Branch> branches) {
    public Ledger {
        entries = List.copyOf(entries);
        branches = List.copyOf(branches);
    }

    /// The end of a branch: the number of its last line, and its rows.
    public record Branch(int line, long rows) {}

    /// What a line did with rows.
    ///
    /// @param line its number
    /// @param change by how many rows the table became longer or shorter
    /// @param words what happened to them
    public record Entry(int line, long change, String words) {}

    /// Whether what was read, with all that happened, is what comes out.
    public boolean addsUp() {
        return read + entries.stream().mapToLong(Entry::change).sum() == out;
    }

    /// From the effects of the lines that the result goes back to.
    public static Ledger of(Plan plan, List<LineEffect> effects) {
        List<Entry> entries = new ArrayList<>();
        LineEffect first = effects.getFirst();
        if (first.left() > 0) {
            entries.add(new Entry(1, -first.left(), "left out, as they do not fit"));
        }
        for (int line : plan.path().subList(1, plan.path().size())) {
            LineEffect effect = effects.get(line - 1);
            if (plan.steps().get(effect.line() - 1).rows() == Lineage.Rows.MERGED) {
                entries.add(new Entry(
                        effect.line(),
                        effect.rowsAfter() - effect.rowsBefore(),
                        String.format("%,d rows merged into %,d", effect.rowsBefore(), effect.rowsAfter())));
                continue;
            }
            long several = effect.rowsAfter() - effect.added() - (effect.rowsBefore() - effect.left());
            if (effect.left() > 0) {
                entries.add(new Entry(effect.line(), -effect.left(), "left"));
            }
            if (several > 0) {
                entries.add(new Entry(effect.line(), several, "more, where a row became several"));
            }
            if (effect.added() > 0) {
                entries.add(new Entry(effect.line(), effect.added(), "came from another table"));
            }
        }
        return new Ledger(
                first.rowsBefore(), entries, effects.get(plan.resultLine() - 1).rowsAfter(), branches(plan, effects));
    }

    private static List<Branch> branches(Plan plan, List<LineEffect> effects) {
        Set<Integer> goneOnFrom = new HashSet<>();
        for (int line = 2; line <= plan.steps().size(); line++) {
            goneOnFrom.add(plan.before(line).number());
        }
        return effects.stream()
                .filter(e -> e.line() != plan.resultLine() && !goneOnFrom.contains(e.line()))
                .map(e -> new Branch(e.line(), e.rowsAfter()))
                .toList();
    }
}
