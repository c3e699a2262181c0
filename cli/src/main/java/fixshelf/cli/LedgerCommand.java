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
        out().printf("%,14d  rows read from %s%n", ledger.read(), job.readFrom());
        long now = ledger.read();
        for (Ledger.Entry entry : ledger.entries()) {
            String sentence =
                    Sentences.plain(job.job().lines().get(entry.line() - 1).line(), shelf.callables());
            out().printf("%+,14d  %s at line %d: %s%n", entry.change(), entry.words(), entry.line(), sentence);
            now += entry.change();
        }
        out().printf("%,14d  rows come out%s%n", ledger.out(), now == ledger.out() ? ", which adds up" : "");
        ledger.branches().forEach(b -> out().printf(
                        "%,14d  rows beside, in a branch that ends at line %d%n", b.rows(), b.line()));
        job.targets().forEach(t -> out().printf("%14s  written to %s%n", "", t.file()));
    }

    private ObjectNode node(Ledger ledger) {
        ObjectNode node = Output.object()
                .put("job", name)
                .put("read", ledger.read())
                .put("out", ledger.out())
                .put("adds_up", ledger.addsUp());
        ArrayNode branches = node.putArray("branches");
        ledger.branches()
                .forEach(b -> branches.addObject().put("line", b.line()).put("rows", b.rows()));
        ArrayNode entries = node.putArray("entries");
        ledger.entries().forEach(e -> entries.addObject()
                .put("line", e.line())
                .put("change", e.change())
                .put("words", e.words()));
        return node;
    }
}
