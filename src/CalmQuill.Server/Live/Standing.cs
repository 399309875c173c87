using CalmQuill.Store.Documents;

namespace CalmQuill.Server.Live;

/// <summary>Where somebody looks at this moment; told to those who follow the notebook, and without the page to those who follow its library. It is kept as long as the connection lasts.</summary>
/// <param name="Notebook">The notebook.</param>
/// <param name="Page">The page of it.</param>
public sealed record Standing(DocumentRef Notebook, Guid Page)
{
    /// <summary>The word for “where”, in what devices receive.</summary>
    public const string Method = "where";

    /// <summary>What is asked of the other servers when somebody begins to follow a notebook or library: who stands there.</summary>
    public const string Asked = "who-stands";

    private DocumentRef Library => DocumentRef.Library(Notebook.Space);

    /// <summary>What those who follow the notebook, and those who follow its library, are told.</summary>
    public LiveMessage[] Told(LiveConnection who) => [Message(Notebook, who, Page.ToString()), Message(Library, who, "")];

    /// <summary>The same once they have gone.</summary>
    public LiveMessage[] Gone(LiveConnection who) => [Message(Notebook, who, "", gone: true), Message(Library, who, "", gone: true)];

    /// <summary>What somebody is told who begins to follow a document; null where it is another's.</summary>
    public LiveMessage? ToldOn(DocumentRef document, LiveConnection who) =>
        document == Notebook ? Message(Notebook, who, Page.ToString())
        : document == Library ? Message(Library, who, "")
        : null;

    private LiveMessage Message(DocumentRef to, LiveConnection who, string page, bool gone = false) =>
        new(to, Method, [who.Visitor.Person.ToString(), who.Id, gone ? "" : Notebook.Id.ToString(), page], 160, who.Id);
}
