using CalmQuill.Store.Documents;

namespace CalmQuill.Server.Live;

/// <summary>A hand that is raised in a notebook; it goes down with the connection.</summary>
/// <param name="Notebook">The notebook that is taught from.</param>
/// <param name="Since">Since when, UTC milliseconds since 1970: who raised it first is called first.</param>
public sealed record RaisedHand(DocumentRef Notebook, long Since)
{
    /// <param name="who">Whose hand it is.</param>
    /// <param name="isUp">Whether it is raised, else it went down.</param>
    public LiveMessage Message(LiveConnection who, bool isUp) =>
        new(Notebook, "hand", [who.Visitor.Person.ToString(), who.Id, isUp ? Since : 0L], 120, who.Id);
}
