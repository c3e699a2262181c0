package fixshelf.desktop.data;

import fixshelf.problem.Outcome;
import fixshelf.profile.RowFilter;
import fixshelf.shelf.Shelf;
import fixshelf.source.SourceFile;
import fixshelf.standin.JobsAlike;
import fixshelf.standin.SharedWord;
import fixshelf.standin.Staged;
import fixshelf.standin.StandIn;
import fixshelf.work.Preview;
import fixshelf.work.PreviewRow;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.function.Consumer;

/// Stand-ins of the dataset that is staged, together with others; worked out in the background.
final class StandInModel {
    private final DataModel data;

    StandInModel(DataModel data) {
        this.data = data;
    }

    /// A dataset that is staged, and others that go with it.
    record Asked(String dataset, SourceFile file, List<String> others) {}

    /// A stand-in that was made, and what jobs do with it.
    record Made(StandIn.Made made, List<JobsAlike.Job> jobs) {}

    /// The words that so many rows share that they may stay.
    void words(Shelf shelf, Asked asked, Consumer<Outcome<List<SharedWord>>> done) {
        data.onData(
                asked.file(),
                "looking for words that many rows share",
                look -> Staged.with(
                        shelf,
                        List.of(new Staged(asked.dataset(), look)),
                        asked.others(),
                        Long.MAX_VALUE,
                        SharedWord::of),
                done);
    }

    /// The first rows beside what they would become, for example.
    void example(Asked asked, List<SharedWord> kept, int rows, Consumer<Outcome<List<PreviewRow>>> done) {
        data.onData(
                asked.file(),
                "making up rows",
                look -> look.rows(RowFilter.ALL, 0, rows)
                        .then(were -> StandIn.example(look, kept, rows).map(are -> {
                            List<PreviewRow> all = new ArrayList<>();
                            for (int i = 0; i < were.size(); i++) {
                                List<PreviewRow.Cell> cells = new ArrayList<>();
                                for (int c = 0; c < are.get(i).size(); c++) {
                                    String was = were.get(i).cells().get(c);
                                    String is = are.get(i).get(c);
                                    cells.add(new PreviewRow.Cell(is, was, !Objects.equals(was, is)));
                                }
                                all.add(new PreviewRow(i + 1L, PreviewRow.Mark.NONE, cells));
                            }
                            return all;
                        })),
                done);
    }

    /// Makes it, and tries the jobs that read one of the datasets.
    void make(Shelf shelf, Asked asked, StandIn.Wanted wanted, Consumer<Outcome<Made>> done) {
        data.onData(
                asked.file(),
                "making a stand-in of " + asked.dataset(),
                look -> Staged.with(
                                shelf,
                                List.of(new Staged(asked.dataset(), look)),
                                asked.others(),
                                Long.MAX_VALUE,
                                all -> StandIn.make(shelf, all, wanted))
                        .map(made -> new Made(made, JobsAlike.of(shelf, made, Preview.STAGED_ROWS))),
                done);
    }
}
