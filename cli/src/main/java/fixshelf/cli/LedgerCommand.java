package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.plan.Sentences;
import fixshelf.problem.Outcome;
import fixshelf.shelf.Shelf;
import fixshelf.work.Ledger;
import fixshelf.work.PlannedJob;
import picocli.CommandLine.Command;

@Command(
        name = "ledger",
        mixinStandardHelpOptions = true,
        description =
                "Account for every row that a job reads: which line it left at, what it became, and that it adds up.")
final class LedgerCommand extends JobOption {
    @Override
    public Integer call() {
        return onJob(this::ledger);
    }

    private int ledger(Shelf shelf, PlannedJob job) {
        Outcome<Ledger> ledger = overAllRows(job, (p, preview) -> preview.ledger(p));
        if (!ledger.isPresent()) {
            return Output.problems(out(), err(), ledger.problems(), json);
        }
        if (json) {
            Output.json(out(), node(ledger.get()));
        } else {
            print(shelf, job, ledger.get());
        }
        return ledger.get().addsUp() ? Output.FINE : Output.FAULT;
    }

    private void print(Shelf shelf, PlannedJob job, Ledger ledger) {
        long now = begin(shelf, job, ledger);
        for (Ledger.Entry entry : ledger.entries()) {
            out().printf(
                            "%+,14d  %s at line %d: %s%n",
                            entry.change(), entry.words(), entry.line(), sentence(shelf, job, entry.line()));
            now += entry.change();
        }
        out().printf("%,14d  rows come out%s%n", ledger.out(), now == ledger.out() ? ", which adds up" : "");
        ledger.branches().forEach(b -> out().printf(
                        "%,14d  rows beside, in a branch that ends at line %d%n", b.rows(), b.line()));
        others(shelf, job, ledger, "");
        if (!ledger.written().isEmpty()) {
            out().println();
        }
        ledger.written().forEach(w -> out().printf("%,14d  rows to %s: %s%n", w.rows(), w.place(), w.what()));
    }

    /// The rows that are read; those of a job or a loader with what became of them there.
    private long begin(Shelf shelf, PlannedJob job, Ledger ledger) {
        if (ledger.before().isEmpty()) {
            out().printf("%,14d  rows read from %s%n", ledger.read(), job.readFrom());
            return ledger.read();
        }
        PlannedJob inner = job.read().getFirst();
        Ledger before = ledger.before().get();
        begin(shelf, inner, before);
        before.entries().forEach(e -> out().printf(
                        "%+,14d  %s at line %d of %s: %s%n",
                        e.change(), e.words(), e.line(), before.job(), sentence(shelf, inner, e.line())));
        out().printf("%,14d  rows that %s gives%n", before.out(), before.job());
        return ledger.read();
    }

    /// The tables that lines take in beside, of the jobs and loaders before it first.
    private void others(Shelf shelf, PlannedJob job, Ledger ledger, String of) {
        ledger.before().ifPresent(b -> others(shelf, job.read().getFirst(), b, " of " + b.job()));
        for (Ledger.Other other : ledger.others()) {
            out().printf(
                            "%n%,14d  rows of %s, for line %d%s: %s%n",
                            other.rows(), other.name(), other.line(), of, sentence(shelf, job, other.line()));
            other.parts().forEach(p -> out().printf("%,14d    %s%n", p.rows(), p.words()));
        }
    }

    private static String sentence(Shelf shelf, PlannedJob job, int line) {
        return Sentences.plain(job.job().lines().get(line - 1).line(), shelf.callables());
    }

    private ObjectNode node(Ledger ledger) {
        ObjectNode node = Output.object()
                .put("job", ledger.job())
                .put("read", ledger.read())
                .put("out", ledger.out())
                .put("adds_up", ledger.addsUp());
        ledger.before().ifPresent(b -> node.set("before", node(b)));
        ArrayNode branches = node.putArray("branches");
        ledger.branches()
                .forEach(b -> branches.addObject().put("line", b.line()).put("rows", b.rows()));
        ArrayNode entries = node.putArray("entries");
        ledger.entries().forEach(e -> entries.addObject()
                .put("line", e.line())
                .put("change", e.change())
                .put("words", e.words()));
        ArrayNode others = node.putArray("others");
        for (Ledger.Other other : ledger.others()) {
            ObjectNode table = others.addObject()
                    .put("line", other.line())
                    .put("table", other.name())
                    .put("rows", other.rows());
            ArrayNode parts = table.putArray("parts");
            other.parts().forEach(p -> parts.addObject().put("rows", p.rows()).put("words", p.words()));
        }
        ArrayNode written = node.putArray("written");
        ledger.written().forEach(w -> written.addObject()
                .put("to", w.place())
                .put("rows", w.rows())
                .put("what", w.what()));
        return node;
    }
}
