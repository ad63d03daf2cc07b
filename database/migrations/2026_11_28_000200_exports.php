<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

/** Parts of projects on their way out, as files that somebody asked for. */
return new class extends Migration {
    public function up(): void
    {
        Schema::create('exports', function (Blueprint $table): void {
            $table->id();
            $table->string('key', 20)->unique();
            $table->foreignId('project_id')->constrained()->cascadeOnDelete();
            $table->foreignId('user_id')->constrained()->cascadeOnDelete();
            $table->jsonb('asked');
            $table->string('file_name');
            $table->string('state', 10)->default('waiting');
            $table->integer('done')->default(0);
            $table->integer('total')->default(0);
            $table->boolean('stop')->default(false);
            $table->text('says')->default('');
            $table->bigInteger('bytes')->default(0);
            $table->timestamps();
        });
    }

    public function down(): void
    {
        Schema::drop('exports');
    }
};
