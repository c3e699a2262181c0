package fixshelf.desktop.jobs;

import fixshelf.plan.Line;
import fixshelf.shelf.JobEdits;
import fixshelf.shelf.JobPage;
import java.util.Optional;
import java.util.function.IntSupplier;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;

/// The lines of a page while they are edited: which one is chosen, and what keys do. Up and down choose another, with
/// Alt they move it, R puts it to rest and wakes it, Delete takes it out.
public final class LineEditor {
    /// The page whose lines these are.
    public interface Page {
        /// Its lines, as those of a job.
        Optional<JobPage> lines();

        /// Gives it another text.
        void edit(String text);
    }

    private final Page page;
    private final JobCard card;
    private final JobCard.Listener listener;
    private final IntSupplier fixed;
    private int chosen = 1;

    /// @param fixed how many lines at the beginning stay where they are, and cannot be taken out
    public LineEditor(Page page, JobCard card, JobCard.Listener listener, IntSupplier fixed) {
        this.page = page;
        this.card = card;
        this.listener = listener;
        this.fixed = fixed;
    }

    /// The number of the chosen line, from 1.
    public int chosen() {
        return chosen;
    }

    /// Remembers that a line is chosen; the nearest one, where there is none of that number.
    public void choose(int line) {
        int lines = page.lines().map(p -> p.lines().size()).orElse(1);
        chosen = Math.clamp(line, 1, Math.max(1, lines));
    }

    public void focus() {
        card.focus(chosen);
    }

    /// Puts a line behind the chosen one, and chooses it.
    public void insert(Line line) {
        page.lines().filter(p -> !p.lines().isEmpty()).ifPresent(p -> {
            String text = JobEdits.insertLine(p, chosen, line);
            chosen++;
            page.edit(text);
            focus();
        });
    }

    /// Gives the line at an index, from 0, another text, and chooses it.
    public void replace(int index, Line line) {
        page.lines().ifPresent(p -> {
            chosen = index + 1;
            page.edit(JobEdits.replaceLine(p, index, line));
        });
    }

    /// Does what a key means; nothing where it is none of these, or pressed elsewhere.
    public void key(KeyEvent event) {
        boolean onLine =
                event.getTarget() instanceof Node n && n.getStyleClass().contains("job-line");
        Optional<JobPage> lines = page.lines();
        if (!onLine || lines.isEmpty()) {
            return;
        }
        KeyCode code = event.getCode();
        int target = code == KeyCode.UP ? chosen - 1 : code == KeyCode.DOWN ? chosen + 1 : 0;
        if (target >= 1 && target <= lines.get().lines().size()) {
            turnTo(target, event.isAltDown(), lines.get());
            event.consume();
        } else if (code == KeyCode.R && !event.isShortcutDown() && chosen > fixed.getAsInt()) {
            Line line = lines.get().lines().get(chosen - 1).line();
            replace(chosen - 1, line.withRest(!line.rest()));
            event.consume();
        } else if (code == KeyCode.DELETE
                && chosen > fixed.getAsInt()
                && lines.get().lines().size() > 1) {
            int index = chosen - 1;
            chosen = Math.max(1, chosen - 1);
            page.edit(JobEdits.removeLine(lines.get(), index));
            event.consume();
        }
    }

    private void turnTo(int target, boolean move, JobPage lines) {
        int upper = Math.min(target, chosen);
        if (!move) {
            listener.chosen(target);
            card.focus(target);
        } else if (upper > fixed.getAsInt()) {
            chosen = target;
            page.edit(JobEdits.exchangeWithNext(lines, upper - 1));
        }
    }
}
