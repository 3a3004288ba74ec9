package org.vastporch.server.people;

import java.util.List;

/** The names under which readers see some students have changed; published in the transaction that changes them. */
public record NamesChanged(long classId, List<Long> personIds) {}
