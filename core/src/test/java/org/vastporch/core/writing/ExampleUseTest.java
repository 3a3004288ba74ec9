package org.vastporch.core.writing;

import static org.junit.jupiter.api.Assertions.*;

import org.junit.jupiter.api.Test;

class ExampleUseTest {

    @Test
    void anExampleIsGivenAndTakenBackAsOneLikes() {
        for (Boolean before : new Boolean[] {null, true, false})
            for (boolean given : new boolean[] {true, false}) assertTrue(ExampleUse.EXAMPLE.takes(before, given));
        assertTrue(ExampleUse.EXAMPLE.mayName());
    }

    @Test
    void aWarmUpIsAnsweredOnceAndThenTakenBackAtMost() {
        assertTrue(ExampleUse.WARM_UP.takes(null, true));
        assertTrue(ExampleUse.WARM_UP.takes(null, false));
        assertTrue(ExampleUse.WARM_UP.takes(true, false));
        assertFalse(ExampleUse.WARM_UP.takes(true, true), "another text under the same marks");
        assertFalse(ExampleUse.WARM_UP.takes(false, true));
        assertFalse(ExampleUse.WARM_UP.takes(false, false));
        assertFalse(ExampleUse.WARM_UP.mayName());
    }
}
