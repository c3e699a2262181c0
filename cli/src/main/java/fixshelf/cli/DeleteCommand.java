package fixshelf.cli;

import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import fixshelf.problem.Outcome;
import fixshelf.shelf.JobPage;
import fixshelf.shelf.Shelf;
import fixshelf.type.Amounts;
import fixshelf.work.DeleteInPlace;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

@Command(
        name = "delete",
        mixinStandardHelpOptions = true,
        description = {
            "Show which rows of a table of a database a job leaves out; delete them there only when that was confirmed.",
            "Without --confirm nothing is changed. The job may only keep rows or leave them out."
        })
final class DeleteCommand extends ShelfOption {
    @Parameters(paramLabel = "JOB", description = "The job whose first line reads the table.")
    String name = "";

    @Option(
            names = "--confirm",
            paramLabel = "SIGN",
            description = "Delete the rows that were shown with this sign, in one transaction.")
    String confirm = "";

    @Override
    public Integer call() {
        return onShelf(this::look);
    }

    private int look(Shelf shelf) {
        Optional<JobPage> job = shelf.job(name);
        if (job.isEmpty()) {
            return unknown("job", name, shelf.jobs().stream().map(JobPage::name).toList());
        }
        Outcome<DeleteInPlace> looked = DeleteInPlace.look(shelf, job.get());
        if (!looked.isPresent()) {
            return Output.problems(out(), err(), looked.problems(), json);
        }
        DeleteInPlace rows = looked.get();
        Outcome<Long> deleted = confirm.isEmpty() ? Outcome.of(0L) : rows.delete(confirm);
        if (!deleted.isPresent()) {
            return Output.problems(out(), err(), deleted.problems(), json);
        }
        if (json) {
            json(rows, deleted.get());
        } else {
            print(rows, deleted.get());
        }
        return Output.FINE;
    }

    private void json(DeleteInPlace rows, long deleted) {
        ObjectNode node = Output.object()
                .put("statement", rows.told().statement())
                .put("rows_before", rows.before())
                .put("rows_that_stay", rows.stay())
                .put("rows_that_go", rows.gone())
                .put("sign", rows.sign())
                .put("deleted", deleted);
        rows.told().named().forEach(node.putArray("named")::add);
        ArrayNode first = node.putArray("first");
        rows.first().forEach(r -> {
            ArrayNode one = first.addArray();
            r.forEach(one::add);
        });
        Output.json(out(), node);
    }

    private void print(DeleteInPlace rows, long deleted) {
        if (!confirm.isEmpty()) {
            out().println(String.format(
                    "Deleted %,d of %s; left: %,d.", deleted, Amounts.of(rows.before(), "row"), rows.stay()));
            return;
        }
        out().println(rows.told().statement());
        out().println(Amounts.of(rows.before(), "row")
                + String.format(" = %,d stay + %,d go", rows.stay(), rows.gone()));
        List<List<String>> table = new ArrayList<>();
        rows.first().forEach(r -> table.add(r.stream().map(Output::cell).toList()));
        if (!table.isEmpty()) {
            out().println();
            Output.table(out(), table);
            if (rows.gone() > table.size()) {
                out().println("and " + String.format("%,d", rows.gone() - table.size()) + " more");
            }
        }
        rows.told().named().forEach(n -> out().println("Beside the table: " + n + "."));
        out().println();
        out().println(
                        rows.gone() == 0
                                ? "Nothing would go."
                                : "Nothing was changed. To delete them: fixshelf delete " + name + " --confirm "
                                        + rows.sign());
    }
}
