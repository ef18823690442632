using System.Reflection;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.EntityFrameworkCore;
using PoliteTally.Store;
using PoliteTally.Store.Model;

namespace PoliteTally.Web.Requests;

/// <summary>The lesson whose id stands in the address, of whoever is signed in, as it stands now.</summary>
/// <param name="Found">The lesson; null only until the request is turned away.</param>
internal sealed record OwnLesson(OpenLesson? Found) : Own(Found is not null), IBindableFromHttpContext<OwnLesson>, IEndpointParameterMetadataProvider
{
    public OpenLesson Open => Found!;

    public static async ValueTask<OwnLesson?> BindAsync(HttpContext context, ParameterInfo parameter) => new(
        await context.RequestServices.GetRequiredService<OpenLessons>().Find(context.RequestServices.GetRequiredService<Owner>().Id, IdIn(context)));

    public static void PopulateMetadata(ParameterInfo parameter, EndpointBuilder builder) => TurnAway(builder);
}

/// <summary>The class whose id stands in the address, of whoever is signed in, with its term.</summary>
/// <param name="Found">The class; null only until the request is turned away.</param>
internal sealed record OwnClass(SchoolClass? Found) : Own(Found is not null), IBindableFromHttpContext<OwnClass>, IEndpointParameterMetadataProvider
{
    /// <summary>Its row, not tracked.</summary>
    public SchoolClass Row => Found!;

    public static async ValueTask<OwnClass?> BindAsync(HttpContext context, ParameterInfo parameter)
    {
        var id = IdIn(context);
        return new(await context.RequestServices.GetRequiredService<SchoolDb>().Classes.AsNoTracking().Include(c => c.Term).FirstOrDefaultAsync(c => c.Id == id));
    }

    public static void PopulateMetadata(ParameterInfo parameter, EndpointBuilder builder) => TurnAway(builder);
}

/// <summary>
/// Something that an address names by <c>id</c>. An endpoint that takes one answers 404 before its handler is called if whoever is signed in has no
/// such thing; so no handler can forget to ask.
/// </summary>
internal abstract record Own(bool IsThere)
{
    protected static Guid IdIn(HttpContext context) => Guid.Parse((string)context.GetRouteValue("id")!);

    protected static void TurnAway(EndpointBuilder builder)
    {
        builder.Metadata.Add(new ProducesResponseTypeMetadata(StatusCodes.Status404NotFound, typeof(void)));
        builder.FilterFactories.Add((_, next) => context => context.Arguments.OfType<Own>().All(own => own.IsThere)
            ? next(context)
            : ValueTask.FromResult<object?>(TypedResults.NotFound()));
    }
}
