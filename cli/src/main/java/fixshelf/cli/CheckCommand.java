package fixshelf.cli;

import fixshelf.problem.Problem;
import fixshelf.shelf.Shelf;
import fixshelf.work.PlannedJob;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import picocli.CommandLine.Command;

@Command(
        name = "check",
        mixinStandardHelpOptions = true,
        description = "Read every page and tell all problems, without running anything.")
final class CheckCommand extends ShelfOption {
    @Override
    public Integer call() {
        return onShelf(this::check);
    }

    private int check(Shelf shelf) {
        Set<Problem> found = new LinkedHashSet<>(shelf.problems());
        List<String> passed = new ArrayList<>();
        found.addAll(PlannedJob.problems(shelf, passed));
        List<Problem> problems = List.copyOf(found);
        int code = Output.problems(out(), err(), problems, json);
        if (!json) {
            passed.forEach(p -> out().println("not looked at: " + p));
            int pages = shelf.fixes().size()
                    + shelf.tableFixes().size()
                    + shelf.datasets().size()
                    + shelf.jobs().size();
            out().println(pages + " pages, "
                    + switch (problems.size()) {
                        case 0 -> "no problem.";
                        case 1 -> "1 problem.";
                        default -> problems.size() + " problems.";
                    });
        }
        return code;
    }
}
