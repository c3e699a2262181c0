package fixshelf.desktop.jobs;

import fixshelf.desktop.parts.Command;
import fixshelf.desktop.parts.Place;
import fixshelf.desktop.parts.Ui;
import fixshelf.desktop.workbench.Background.Request;
import fixshelf.desktop.workbench.Workbench;
import fixshelf.fetch.Consent;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.JobPage;
import fixshelf.type.Amounts;
import fixshelf.type.Visible;
import fixshelf.work.DeleteInPlace;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// Deleting rows where they are: what would go is shown first, and the button that deletes it is there only as long as
/// nothing else was looked at.
final class DeleteRows {
    private static final int SHOWN = 3;

    private final Workbench workbench;
    private final Teller teller;
    private Optional<DeleteInPlace> shown = Optional.empty();

    /// What hears of it.
    interface Teller {
        /// The job in view.
        Optional<JobPage> job();

        /// @param refused what was asked for and is not allowed yet
        void tell(String words, boolean wrong, List<Consent.Place> refused);

        /// The table is another than before.
        void deleted(String words);
    }

    DeleteRows(Workbench workbench, Teller teller) {
        this.workbench = workbench;
        this.teller = teller;
    }

    /// What was shown is not in view any more.
    void forget() {
        shown = Optional.empty();
    }

    Command look(Optional<JobModel.Look> look) {
        return Command.of("Which rows would be deleted from the table", "", this::look)
                .when(() -> readsServer(look));
    }

    /// The command that deletes what is shown; none where nothing is.
    Optional<Command> confirm() {
        return shown.map(
                d -> Command.of("Delete " + Ui.count(d.gone(), "row", "rows") + " in the table", "", () -> delete(d)));
    }

    private boolean readsServer(Optional<JobModel.Look> look) {
        return look.map(l -> l.planned().plan().read().name())
                .flatMap(n -> workbench.shelf().dataset(n))
                .flatMap(d -> d.options().form())
                .filter(f -> f instanceof ReadOptions.Form.Server || f instanceof ReadOptions.Form.Database)
                .isPresent();
    }

    private void look() {
        Optional<JobPage> job = teller.job();
        job.ifPresent(j -> {
            teller.tell("Looking what would go from the table …", false, List.of());
            workbench
                    .background()
                    .ask(
                            Request.now("run", "looking what would go from the table"),
                            () -> DeleteInPlace.look(workbench.shelf(), j),
                            looked -> {
                                if (teller.job().equals(job)) {
                                    looked(looked);
                                }
                            });
        });
    }

    private void looked(Outcome<DeleteInPlace> looked) {
        shown = looked.value().filter(d -> d.gone() > 0);
        Optional<Problem> wrong = looked.problems().stream().findFirst();
        teller.tell(
                wrong.map(Problem::sentence).orElseGet(() -> words(looked.get())),
                wrong.isPresent(),
                Consent.askedBy(looked.problems()));
    }

    private static String words(DeleteInPlace rows) {
        StringBuilder words = new StringBuilder(
                Amounts.of(rows.before(), "row") + String.format(" = %,d stay + %,d go. ", rows.stay(), rows.gone()));
        if (rows.gone() > 0) {
            String first =
                    rows.first().stream().limit(SHOWN).map(DeleteRows::row).collect(Collectors.joining("; "));
            words.append("First: ").append(first).append(". ");
            words.append(rows.told().statement()).append(". ");
        }
        rows.told()
                .named()
                .forEach(n -> words.append("Beside the table: ").append(n).append(". "));
        return words.append("Nothing was changed yet.").toString();
    }

    private static String row(List<@Nullable String> cells) {
        return cells.stream()
                .map(c -> c == null ? "∅" : Visible.markOddities(c))
                .collect(Collectors.joining(", "));
    }

    private void delete(DeleteInPlace rows) {
        forget();
        teller.tell("Deleting …", false, List.of());
        workbench.background().ask(Request.now("run", "deleting rows"), () -> rows.delete(rows.sign()), deleted -> {
            if (deleted.isPresent()) {
                teller.deleted(String.format(
                        "Deleted %,d of %s in the table.", deleted.get(), Amounts.of(rows.before(), "row")));
            } else {
                teller.tell(Ui.words(deleted.problems().getFirst()), true, List.of());
            }
        });
    }
}
