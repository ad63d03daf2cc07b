<?php

declare(strict_types=1);

namespace App\Models;

enum ImportState: string
{
    case Waiting = 'waiting';
    case Running = 'running';
    case Done = 'done';
    case Failed = 'failed';
    case Stopped = 'stopped';
}
