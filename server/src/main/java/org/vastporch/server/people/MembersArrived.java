package org.vastporch.server.people;

import java.util.List;

/** Students have come into a class; published in the transaction that enrols them. */
public record MembersArrived(long classId, List<Long> personIds) {}
