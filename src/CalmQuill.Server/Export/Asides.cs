using CalmQuill.Core.Asides;
using CalmQuill.Core.Papers;
using CalmQuill.Documents;
using CalmQuill.Server.Access;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Spaces;

namespace CalmQuill.Server.Export;

/// <summary>How a person's aside goes along when a page is saved as a file.</summary>
internal enum AsideAlong
{
    /// <summary>Drawn over the page.</summary>
    Over,

    /// <summary>By itself, on the page's paper.</summary>
    Alone,
}

/// <summary>A person's asides as they are put into files, for that person and nobody else.</summary>
internal sealed class Asides(DocumentStore documents, SpaceStore spaces)
{
    /// <summary>Reads what is asked for; false where that is nothing there is.</summary>
    /// <param name="asked">Nothing, “over” or “alone”.</param>
    /// <param name="how">How it goes along; null where nothing is asked for.</param>
    public static bool TryRead(string? asked, out AsideAlong? how)
    {
        how = asked switch
        {
            "over" => AsideAlong.Over,
            "alone" => AsideAlong.Alone,
            _ => null,
        };
        return how is not null || asked is null;
    }

    /// <param name="how">How it goes along; null where it does not.</param>
    /// <param name="visitor">Whose aside.</param>
    /// <param name="printed">The page.</param>
    /// <param name="cancel">Gives up.</param>
    public async Task<PrintedPage> Along(AsideAlong? how, Visitor visitor, PrintedPage printed, CancellationToken cancel)
    {
        if (how is not { } along || await spaces.PersonalOf(visitor.Person, cancel) is not { } own)
            return printed;
        var aside = await documents.Aside(own, printed.Id, cancel);
        new AsideLay(aside, printed.Page).Follow();
        return along is AsideAlong.Over ? printed with { Aside = aside } : printed with { Page = aside };
    }

    /// <summary>By itself; null where the person wrote none.</summary>
    public async Task<PrintedPage?> Alone(Visitor visitor, Guid page, string? paper, string? title, CancellationToken cancel)
    {
        if (
            await spaces.PersonalOf(visitor.Person, cancel) is not { } own
            || await documents.Find(DocumentRef.Aside(own, page), cancel) is null
        )
            return null;
        return new PrintedPage(await documents.Aside(own, page, cancel), Paper.ParseOrDefault(paper ?? ""), title ?? "")
        {
            Id = page,
            Number = 1,
            Cancel = cancel,
        };
    }
}
