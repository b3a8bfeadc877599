# frozen_string_literal: true

module Roost
  module Core
    # What the keeper sets for the whole school, read from a form.
    module SchoolSettings
      NAME_LIMIT = 80
      # Of lists of words that ship with the program.
      LANGUAGES = { "en" => "English", "de" => "German", "es" => "Spanish", "fr" => "French", "it" => "Italian", "nl" => "Dutch",
                    "pl" => "Polish", "pt" => "Portuguese", "sv" => "Swedish" }.freeze
      JOINING = { "invited" => "By invitation only", "domains" => "By invitation, or with an address in these domains" }.freeze
      KEEP = { "" => "Until they are deleted", "365" => "One year", "730" => "Two years", "1825" => "Five years" }.freeze
      ZONE = %r{\A[A-Z][A-Za-z_]+(?:/[A-Za-z_+-]+\d*){1,2}\z}
      DOMAIN = /\A[a-z0-9](?:[a-z0-9-]*[a-z0-9])?(?:\.[a-z0-9](?:[a-z0-9-]*[a-z0-9])?)+\z/
      MOST_DOMAINS = 20
      GRADES = (0.01r..1000)

      # @param form [Hash] "name", "time_zone", "languages", "top_grade", "grade_step", "keep_days", "joining", "domains"
      # @return [Reading] of Hash
      def self.read(form)
        Text.read(form["name"], limit: NAME_LIMIT, what: "The name of the school", lines: false).and_then do |name|
          zone(form["time_zone"]).and_then do |time_zone|
            grades(form).and_then do |grades|
              domains(form).map do |domains|
                { name: name, time_zone: time_zone, languages: languages(form), domains: domains, **grades,
                  keep_days: KEEP.key?(form["keep_days"]) ? form["keep_days"][/\d+/]&.to_i : nil,
                  joining: JOINING.key?(form["joining"]) ? form["joining"] : "invited" }
              end
            end
          end
        end
      end

      # @return [Array<String>] of LANGUAGES, at least one
      def self.languages(form)
        chosen = Array(form["languages"]) & LANGUAGES.keys
        chosen.empty? ? ["en"] : chosen
      end

      def self.zone(raw)
        zone = raw.to_s.strip
        zone.length < 60 && zone.match?(ZONE) ? Reading.ok(zone) : Reading.refused("Write the time zone like Europe/London.")
      end

      def self.grades(form)
        top, step = %w[top_grade grade_step].map { |field| NumberText.read(form[field]).value }
        fits = [top, step].all? { |number| number && GRADES.cover?(number) } && step <= top
        return Reading.refused("The top grade is a number up to 1000, and the step no larger than it.") unless fits

        Reading.ok({ top_grade: top, grade_step: step })
      end

      def self.domains(form)
        domains = form["domains"].to_s[0, 2000].downcase.split(/[\s,;]+/).map do |domain|
          domain.delete_prefix("@")
        end.reject(&:empty?).uniq
        bad = domains.find { |domain| !domain.match?(DOMAIN) }
        return Reading.refused("“#{bad[0, 60]}” is no domain. Write them like heronsgate.example.") if bad
        return Reading.refused("At most #{MOST_DOMAINS} domains.") if domains.length > MOST_DOMAINS
        if domains.empty? && form["joining"] == "domains"
          return Reading.refused("Write at least one domain, or choose invitations only.")
        end

        Reading.ok(domains)
      end
      private_class_method :languages, :zone, :grades, :domains
    end
  end
end
