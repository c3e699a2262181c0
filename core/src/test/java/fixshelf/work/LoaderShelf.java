package fixshelf.work;

import fixshelf.fetch.Copies;
import fixshelf.problem.Problem;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;

/// A shelf with a loader of visits, and what is read of it.
abstract class LoaderShelf {
    static final String VISITS = """
            ---
            format: 2
            fix: visits_of
            kind: loader
            reads: read the visits of {room} in {year}
            parameters:
              room: {type: text, about: The room.}
              year: {type: integer, default: 2026, about: The year.}
              least: {type: "decimal(9,2)", default: 0, about: What was paid at least.}
            returns: [no, "paid decimal(9,2)", room]
            ---
            # Visits of a room

            What was paid in a room.

            ```yaml
            - read: {file: "{data}/{room}-{year}.csv"}
            - read_as: {paid: "decimal(9,2)"}
            - keep_rows: paid >= least
            - add: {room: room}
            ```

            ## Cases

            ### Typed

            with

            | room | least |
            |---|---|
            | quay | 2 |

            given

            | no | paid |
            |---|---|
            | 'a' | '1.50' |
            | 'b' | '2.00' |

            gives

            | no | paid: decimal(9,2) | room |
            |---|---|---|
            | 'b' | 2.00 | 'quay' |

            ### Out of a file

            with

            | room |
            |---|
            | quay |

            reads

            | file |
            |---|
            | cases/some.csv |

            gives

            | no | paid: decimal(9,2) | room |
            |---|---|---|
            | 'z' | 9.00 | 'quay' |

            ### Without a column

            with

            | room |
            |---|
            | quay |

            given

            | no |
            |---|
            | 'a' |

            stops

            | problem |
            |---|
            | There is no column paid |
            """;

    @TempDir
    Path folder;

    @BeforeEach
    void shelf() throws Exception {
        for (String inside : List.of("fixes/cases", "datasets", "jobs", "data")) {
            Files.createDirectories(folder.resolve(inside));
        }
        write("shelf.yaml", "shelf: Loaders\nenvironment: dev\nenvironments: {dev: {data: data}}\n");
        write("fixes/visits_of.fix.md", VISITS);
        write("fixes/cases/some.csv", "no,paid\nz,9\n");
        write("data/quay-2026.csv", "no,paid\na,1.50\nb,2.00\n");
        write("data/mere-2026.csv", "no,paid\nc,7\n");
        write("data/07-2025.csv", "no,paid\nd,8\n");
        Copies.forget();
    }

    void write(String file, String text) throws Exception {
        Files.writeString(folder.resolve(file), text);
    }

    Shelf read() {
        return ShelfReader.read(folder).get();
    }

    void dataset(String text) throws Exception {
        write("datasets/d.yaml", "dataset: d\n" + text + "\n");
    }

    String rows(String dataset) {
        return ReadRows.of(Datasets.open(read(), dataset));
    }

    static String words(List<Problem> problems) {
        return problems.stream().map(p -> p.what() + " " + p.todo()).collect(Collectors.joining("\n"));
    }

    String result(String job) {
        PlannedJob planned =
                PlannedJob.plan(read(), read().job(job).orElseThrow(), Map.of()).get();
        try (Preview preview = Preview.open(planned.source()).get()) {
            return preview.grid(planned, planned.plan().steps().size())
                    .get()
                    .rows()
                    .toString();
        }
    }
}
