package org.vastporch.server.session;

import io.swagger.v3.oas.annotations.Hidden;
import jakarta.servlet.http.HttpServletRequest;
import java.util.List;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Lazy;
import org.springframework.core.MethodParameter;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.context.request.RequestAttributes;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.vastporch.core.access.Membership;
import org.vastporch.core.access.Reason;
import org.vastporch.core.access.Role;
import org.vastporch.core.access.Viewer;
import org.vastporch.server.access.AccessService;
import org.vastporch.server.http.Problem;

/**
 * Hands the viewer to every endpoint that names one. With the header {@value #EYES} staff get the viewer whose eyes
 * they borrow: "3/17" for the person at place 17 of class 3, "3/guest" and "3/stranger" for one who is made up. Eyes
 * only read.
 */
@Configuration
@Hidden
class ViewerArgument implements WebMvcConfigurer, HandlerMethodArgumentResolver {

    static final String EYES = "X-Porch-Eyes";
    private static final long MADE_UP = -1;

    private final AccessService access;

    ViewerArgument(@Lazy AccessService access) {
        this.access = access;
    }

    static {
        SpringDocUtils.getConfig().addRequestWrapperToIgnore(Viewer.class);
    }

    @Override
    public void addArgumentResolvers(List<HandlerMethodArgumentResolver> resolvers) {
        resolvers.add(this);
    }

    @Override
    public boolean supportsParameter(MethodParameter parameter) {
        return parameter.getParameterType() == Viewer.class;
    }

    @Override
    public Object resolveArgument(
            MethodParameter parameter,
            ModelAndViewContainer container,
            NativeWebRequest request,
            WebDataBinderFactory binders) {
        Object viewer = request.getAttribute(Viewer.class.getName(), RequestAttributes.SCOPE_REQUEST);
        Viewer person = viewer == null ? Viewer.STRANGER : (Viewer) viewer;
        String eyes = request.getHeader(EYES);
        return eyes == null ? person : through(person, eyes, request);
    }

    private Viewer through(Viewer viewer, String eyes, NativeWebRequest request) {
        if (!"GET".equals(request.getNativeRequest(HttpServletRequest.class).getMethod()))
            throw Problem.refused(Reason.ONLY_EYES);
        String[] parts = eyes.split("/");
        try {
            long classId = Long.parseLong(parts[0]);
            return switch (parts[1]) {
                case "stranger" -> access.eyes(viewer, classId, null);
                case "guest" -> {
                    access.eyes(viewer, classId, null);
                    yield new Viewer(MADE_UP, false, List.of(new Membership(classId, Role.GUEST, null, null)))
                            .throughLens(classId);
                }
                default -> access.eyes(viewer, classId, Long.parseLong(parts[1]));
            };
        } catch (NumberFormatException | ArrayIndexOutOfBoundsException e) {
            throw Problem.missing();
        }
    }
}
