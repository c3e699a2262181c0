package fixshelf.desktop.parts;

import javafx.scene.Node;
import javafx.scene.control.SplitPane;
import javafx.scene.layout.Region;

/// Two pages with a divider; either can take the whole width for a moment.
public final class FacingPages extends SplitPane {
    private static final double USUAL = 0.361;

    private final double usual;

    public FacingPages(Region left, Region right) {
        this(left, right, USUAL);
    }

    /// @param usual how much of the width the left page has
    public FacingPages(Region left, Region right, double usual) {
        super(left, right);
        this.usual = usual;
        getStyleClass().add("facing");
        left.getStyleClass().add("left-page");
        right.getStyleClass().add("right-page");
        left.setMinWidth(0);
        right.setMinWidth(0);
        setDividerPositions(usual);
        SplitPane.setResizableWithParent(left, false);
    }

    /// Puts another page on the left.
    public void left(Region page) {
        if (getItems().getFirst() != page) {
            double at = getDividerPositions()[0];
            getItems().set(0, page);
            page.setMinWidth(0);
            SplitPane.setResizableWithParent(page, false);
            setDividerPositions(at);
        }
    }

    /// Left whole, right whole, both: one after the other.
    public void turn() {
        double at = getDividerPositions()[0];
        setDividerPositions(at > 0.9 ? 0 : at < 0.1 ? usual : 1);
    }

    Node left() {
        return getItems().get(0);
    }
}
