namespace CalmQuill.Testing;

/// <summary>A clock that goes ahead of the true one.</summary>
public sealed class ClockAhead : TimeProvider
{
    public TimeSpan Ahead { get; set; }

    public override DateTimeOffset GetUtcNow() => base.GetUtcNow() + Ahead;
}
