<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** A file that is taken in may make tags from one of its properties. */
return new class extends Migration {
    public function up(): void
    {
        Schema::table('imports', function (Blueprint $table): void {
            $table->string('tags_from', 100)->default('');
            $table->string('separator', 10)->default('');
        });
    }

    public function down(): void
    {
        Schema::table('imports', fn (Blueprint $table) => $table->dropColumn(['tags_from', 'separator']));
    }
};
