<?php

declare(strict_types=1);

namespace App\Policies;

use App\Models\Import;
use App\Models\User;
use Illuminate\Auth\Access\Response;

/** An import belongs to the person who gave the file. */
final class ImportPolicy
{
    public function own(User $person, Import $import): Response
    {
        return $import->user_id === $person->id ? Response::allow() : Response::denyAsNotFound();
    }
}
