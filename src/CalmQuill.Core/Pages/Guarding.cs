using CalmQuill.Core.Access;

namespace CalmQuill.Core.Pages;

/// <summary>Whose things on a page the person at this device may change. Without it, as on the server, everything is open.</summary>
public sealed class Guarding
{
    private (Touch Touch, Role Role, Guid Person) rule = (Touch.Everything, Role.Owner, Guid.Empty);

    private IReadOnlySet<Guid> hidden = new HashSet<Guid>();

    /// <summary>Of whom nothing is shown for a while: what is not seen is not changed by mistake.</summary>
    public void Hide(IReadOnlySet<Guid> people) => hidden = people;

    /// <summary>From now on tools go by this.</summary>
    public void Set(Touch touch, Role role, Guid person) => rule = (touch, role, person);

    /// <summary>Whether what somebody made may be changed here.</summary>
    public bool May(Guid author) => !hidden.Contains(author) && TouchRules.May(rule.Touch, rule.Role, author == rule.Person);
}
