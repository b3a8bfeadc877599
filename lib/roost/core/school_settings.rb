# frozen_string_literal: true

module Roost
  module Core
    # What the keeper sets for the whole school, read from a form.
    module SchoolSettings
      NAME_LIMIT = 80
      JOINING = { "invited" => "By invitation only", "domains" => "By invitation, or with an address in these domains" }.freeze
      # Whose alphabet names are sorted by.
      LANGUAGES = { "hr" => "Croatian", "cs" => "Czech", "da" => "Danish", "nl" => "Dutch", "en" => "English", "et" => "Estonian",
                    "fi" => "Finnish", "fr" => "French", "de" => "German", "el" => "Greek", "hu" => "Hungarian",
                    "is" => "Icelandic", "ga" => "Irish", "it" => "Italian", "lv" => "Latvian", "lt" => "Lithuanian",
                    "nb" => "Norwegian", "pl" => "Polish", "pt" => "Portuguese", "ro" => "Romanian", "sk" => "Slovak",
                    "sl" => "Slovenian", "es" => "Spanish", "sv" => "Swedish", "tr" => "Turkish", "uk" => "Ukrainian",
                    "cy" => "Welsh" }.freeze
      KEEP = { "" => "Until they are deleted", "365" => "One year", "730" => "Two years", "1825" => "Five years" }.freeze
      NO_ZONE = "Choose a time zone from the list."
      ZONE = %r{\A[A-Z][A-Za-z_]+(?:/[A-Za-z_+-]+\d*){1,2}\z}
      LONGEST_ZONE = 60
      DOMAIN = /\A[a-z0-9](?:[a-z0-9-]*[a-z0-9])?(?:\.[a-z0-9](?:[a-z0-9-]*[a-z0-9])?)+\z/
      MOST_DOMAINS = 20
      GRADES = (0.01r..1000)

      # @param form [Hash] "name", "time_zone", "language", "top_grade", "grade_step", "grade_table", "keep_days", "joining",
      #   "domains"
      # @return [Reading] of Hash
      def self.read(form)
        chosen = { keep_days: KEEP.key?(form["keep_days"]) ? form["keep_days"][/\d+/]&.to_i : nil,
                   joining: JOINING.key?(form["joining"]) ? form["joining"] : "invited",
                   language: LANGUAGES.key?(form["language"]) ? form["language"] : "en" }
        [named(form), zone(form["time_zone"]), grades(form), table(form),
         domains(form)].reduce(Reading.ok(chosen)) do |so_far, part|
          so_far.and_then { |settings| part.map { |more| settings.merge(more) } }
        end
      end

      def self.named(form)
        Text.read(form["name"], limit: NAME_LIMIT, what: "The name of the school", lines: false).map { |name| { name: name } }
      end

      def self.zone(raw)
        raw.to_s.length < LONGEST_ZONE && raw.to_s.match?(ZONE) ? Reading.ok({ time_zone: raw }) : Reading.refused(NO_ZONE)
      end

      def self.grades(form)
        top, step = %w[top_grade grade_step].map { |field| NumberText.read(form[field]).value }
        fits = [top, step].all? { |number| number && GRADES.cover?(number) } && step <= top
        return Reading.refused("The top grade is a number up to 1000, and the step no larger than it.") unless fits

        Reading.ok({ top_grade: top, grade_step: step })
      end

      def self.table(form)
        Text.read(form["grade_table"], limit: Grading::Scale::LIMIT, what: Grading::Scale::WHAT).and_then do |text|
          Grading::Scale.read_table(text).map { { grade_table: text } }
        end
      end

      def self.domains(form)
        typed = form["domains"].to_s[0, 2000].downcase.split(/[\s,;]+/)
        domains = typed.map { |domain| domain.delete_prefix("@") }.reject(&:empty?).uniq
        bad = domains.find { |domain| !domain.match?(DOMAIN) }
        return Reading.refused("“#{bad[0, 60]}” is no domain. Write them like heronsgate.example.") if bad
        return Reading.refused("At most #{MOST_DOMAINS} domains.") if domains.length > MOST_DOMAINS
        if domains.empty? && form["joining"] == "domains"
          return Reading.refused("Write at least one domain, or choose invitations only.")
        end

        Reading.ok({ domains: domains })
      end
      private_class_method :named, :zone, :grades, :table, :domains
    end
  end
end
