<?php

declare(strict_types=1);

namespace App\Changes;

/** A change has waited for others for a second; told where the person cannot ask meanwhile, as with a command. */
final readonly class ChangeIsWaiting
{
    /** @param string $says whose change it waits for, for example "Bea Lind is changing the project; yours comes next" */
    public function __construct(public string $says) {}
}
