package fixshelf.work;

import fixshelf.plan.Line;
import fixshelf.plan.Sentences;
import fixshelf.shelf.Shelf;
import fixshelf.type.Amounts;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/// What is worth saying of the rows that a job reads: where they come from, and what the lines of a job or a loader
/// that it begins with, or the types of a dataset, make of them without being lines of the job.
public final class ReadNotes {
    private static final int MOST_NAMED = 5;

    private ReadNotes() {}

    /// The notes, over the rows that a preview looks at.
    public static List<String> of(Shelf shelf, Preview preview, PlannedJob job) {
        List<String> notes = new ArrayList<>(preview.notes());
        tell(shelf, preview, job, notes);
        return notes;
    }

    private static void tell(Shelf shelf, Preview preview, PlannedJob reader, List<String> notes) {
        if (!reader.plan().readsJob() || reader.read().isEmpty()) {
            return;
        }
        PlannedJob read = reader.read().getFirst();
        tell(shelf, preview, read, notes);
        for (LineEffect effect : preview.look(read).value().orElse(List.of())) {
            lost(shelf, preview, read, effect).ifPresent(notes::add);
            effect.reports().stream()
                    .filter(r -> r.breaks() && r.rows() > 0)
                    .map(r -> begins(shelf, read, effect) + ": " + r.sentence() + ". A run stops there.")
                    .forEach(notes::add);
        }
    }

    private static Optional<String> lost(Shelf shelf, Preview preview, PlannedJob read, LineEffect effect) {
        if (effect.valuesLost() == 0) {
            return Optional.empty();
        }
        List<LostValue> values =
                preview.lost(read, effect.line(), MOST_NAMED).value().orElse(List.of());
        boolean strict = read.plan().steps().get(effect.line() - 1).line().strict();
        String lost = Amounts.of(effect.valuesLost(), "value");
        String which = LostValue.list(values) + (values.size() == MOST_NAMED ? "; …" : "") + ".";
        return Optional.of(
                isTyped(read)
                        ? read.job().name() + ": " + lost + (effect.valuesLost() == 1 ? " is" : " are")
                                + " not of the type of the column, "
                                + (strict ? "so that a run stops: " : "and missing: ") + which
                        : begins(shelf, read, effect) + " loses " + lost + (strict ? ", so that a run stops: " : ": ")
                                + which);
    }

    /// Whether it is no job but a dataset whose columns have types.
    static boolean isTyped(PlannedJob read) {
        return read.job()
                .firstLine()
                .filter(l -> l.call().equals(Line.READ_FILE)
                        && l.written(Line.SOURCE).isPresent())
                .isPresent();
    }

    /// `In visits, "Leave out blank rows"`.
    private static String begins(Shelf shelf, PlannedJob read, LineEffect effect) {
        Line line = read.plan().steps().get(effect.line() - 1).line();
        return "In " + read.job().name() + ", \"" + Sentences.plain(line.withStrict(false), shelf.callables()) + '"';
    }
}
