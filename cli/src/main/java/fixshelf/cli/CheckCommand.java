package fixshelf.cli;

import fixshelf.problem.Problem;
import fixshelf.shelf.Shelf;
import java.util.List;
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
        List<Problem> problems = shelf.problems();
        int code = Output.problems(out(), err(), problems, json);
        if (!json) {
            int pages = shelf.fixes().size()
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
