package dev.trellisgorge.cli;

import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;

/** A test that types commands at a desk, which is cleared for each. */
abstract class AtDesk {
    Desk desk;

    @BeforeMethod
    final void sit() {
        desk = new Desk();
    }

    @AfterMethod
    final void leave() {
        desk.close();
    }
}
