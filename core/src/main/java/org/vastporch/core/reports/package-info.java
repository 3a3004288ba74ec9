/**
 * Reports: what a template with fields says of one student and one week.
 *
 * <p>{@link ReportTemplate} fills in what {@link ReportFacts} holds; which fields, parts and conditions there are is in
 * {@link ReportField}. A report knows nothing but those facts, and they are only what its student may read too.
 */
package org.vastporch.core.reports;
