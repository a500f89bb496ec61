namespace Dibujo.Core.Speech;

/// <summary>What can be done to an element, before it is known to which.</summary>
internal enum Doing
{
    Show,
    Hide,
    Require,
    MakeOptional,
    Lock,
    Unlock,
    Clear,
    Reset,
    Set,
    Calculate,
    Narrow,
    Suggest,
}
