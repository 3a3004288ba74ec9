package org.vastporch.server.http;

import com.fasterxml.jackson.annotation.Nulls;
import org.springframework.boot.jackson.autoconfigure.JsonMapperBuilderCustomizer;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/**
 * A list that is sent has no holes, be it a part of a body or all of it: nothing behind the door has to ask whether
 * something stands there.
 */
@Component
class NoHoles implements JsonMapperBuilderCustomizer {

    @Override
    public void customize(JsonMapper.Builder builder) {
        builder.changeDefaultNullHandling(now -> now.withContentNulls(Nulls.FAIL));
    }
}
