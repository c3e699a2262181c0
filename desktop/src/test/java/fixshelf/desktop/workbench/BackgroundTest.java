package fixshelf.desktop.workbench;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.desktop.workbench.Background.Request;
import fixshelf.engine.Stop;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;

/// Work off the interface's thread: the newest answer of a name counts, a fault is told, and the rest goes on.
class BackgroundTest {
    private final TestScreen screen = new TestScreen();
    private final Background background = new Background(screen);
    private final List<String> heard = new ArrayList<>();

    @AfterEach
    void close() {
        background.close();
    }

    @Test
    void ofSeveralRequestsOfOneNameTheNewestIsAnswered() {
        CountDownLatch held = new CountDownLatch(1);
        background.ask(Request.now("lane", "looking"), () -> await(held, "old"), heard::add);
        background.ask(Request.now("lane", "looking"), () -> "new", heard::add);
        background.ask(Request.now("lane", "other"), () -> "beside", heard::add);
        held.countDown();
        screen.settle(background);
        assertThat(heard).containsExactly("new", "beside");
        assertThat(background.busyProperty().get()).isEmpty();
    }

    /// The answer is there already, and not yet taken, when something newer is asked.
    @Test
    void anAnswerThatIsNotTakenYetIsDroppedForANewerQuestion() {
        background.ask(Request.now("lane", "looking"), () -> "old", heard::add);
        background.ask(Request.now("other lane", "waiting"), () -> "came", heard::add);
        screen.until(() -> heard.contains("came"));
        background.ask(Request.now("lane", "looking"), () -> "new", heard::add);
        screen.settle(background);
        assertThat(heard).endsWith("new");
        assertThat(heard.stream().filter("old"::equals).count()).isLessThanOrEqualTo(1);
    }

    @Test
    void workOfOneLaneRunsInOrder() {
        for (int i = 0; i < 20; i++) {
            String name = "" + i;
            background.ask(Request.now("lane", name), () -> name, heard::add);
        }
        screen.settle(background);
        assertThat(heard)
                .hasSize(20)
                .isSortedAccordingTo((a, b) -> Integer.compare(Integer.parseInt(a), Integer.parseInt(b)));
    }

    @Test
    void aFaultIsToldAndWhatComesAfterItRuns() {
        background.ask(
                Request.now("lane", "reading"),
                () -> {
                    throw new IllegalStateException("no such page");
                },
                _ -> heard.add("never"),
                heard::add);
        background.ask(Request.now("lane", "after"), () -> "after", heard::add);
        screen.settle(background);
        assertThat(heard).containsExactly("A fault of the program while reading: no such page", "after");
        assertThat(background.faultProperty().get()).isEqualTo(heard.getFirst());
        assertThat(background.isIdle()).isTrue();
    }

    /// A fault of what hears an answer does not leave the status line busy for ever.
    @Test
    void aFaultOfAListenerLeavesNothingOpen() {
        background.ask(Request.now("lane", "one"), () -> "one", _ -> {
            throw new IllegalStateException("in the view");
        });
        try {
            screen.settle(background);
        } catch (IllegalStateException e) {
            heard.add(e.getMessage());
        }
        assertThat(heard).containsExactly("in the view");
        assertThat(background.isIdle()).isTrue();
    }

    @Test
    void whatRunsCanBeStopped() {
        CountDownLatch begun = new CountDownLatch(1);
        background.ask(
                Request.now("lane", "long"),
                () -> {
                    begun.countDown();
                    while (true) {
                        Stop.check();
                        Thread.onSpinWait();
                    }
                },
                _ -> heard.add("never"),
                heard::add);
        await(begun, "");
        background.stop();
        screen.settle(background);
        assertThat(heard).singleElement().asString().startsWith("A fault of the program while long");
    }

    @Test
    void afterItsEndNothingIsDoneAndWhatWasHeldIsLetGo() throws Exception {
        CountDownLatch letGo = new CountDownLatch(1);
        background.atEnd(letGo::countDown);
        background.close();
        background.ask(Request.now("lane", "late"), () -> "late", heard::add);
        letGo.await();
        assertThat(heard).isEmpty();
    }

    private static String await(CountDownLatch latch, String then) {
        try {
            latch.await();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        return then;
    }
}
