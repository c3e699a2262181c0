package fixshelf.desktop.jobs;

import fixshelf.desktop.parts.Ui;
import fixshelf.plan.Sentences;
import fixshelf.shelf.JobPage;
import fixshelf.work.LostValue;
import fixshelf.work.Mending;
import java.util.List;
import javafx.scene.text.TextFlow;

/// What there is to say above the rows of a line, with blanks that change the job: what it loses, what would mend it.
final class LineOffers extends TextFlow {
    static final int MOST_LOST = 8;

    private final JobRows.Editing editing;

    LineOffers(JobRows.Editing editing) {
        this.editing = editing;
    }

    /// Lines that would mend keys which nearly match; pressed, one is written.
    void mendings(int at, List<Mending> mendings) {
        if (mendings.isEmpty()) {
            return;
        }
        getChildren().setAll(Ui.sentence("To mend it,\n"));
        for (Mending mending : mendings) {
            getChildren()
                    .addAll(
                            Ui.sentence(mendings.indexOf(mending) == 0 ? "" : ";\nor "),
                            Ui.blank(mending.sentence(), "blank", () -> {
                                if (mending.inserted()) {
                                    editing.insert(at - 1, mending.line());
                                } else {
                                    editing.changed(at - 1, mending.line());
                                }
                            }));
        }
        getChildren().add(Ui.sentence("."));
        setVisible(true);
    }

    /// The values that a line loses, and a blank that says what a run does about them.
    void lost(JobModel.Look look, int line, List<LostValue> values) {
        JobPage.PlacedLine placed = look.planned().job().lines().get(line - 1);
        if (values.isEmpty()) {
            return;
        }
        boolean stops = placed.line().strict();
        String all = LostValue.list(values) + (values.size() == MOST_LOST ? "; …" : "");
        getChildren()
                .setAll(
                        Ui.sentence("Lost: " + all + ". A lost value "),
                        Ui.blank(
                                stops ? Sentences.STOPS : "becomes missing",
                                "blank",
                                () -> editing.changed(line - 1, placed.line().withStrict(!stops))),
                        Ui.sentence("."));
        setVisible(true);
    }
}
